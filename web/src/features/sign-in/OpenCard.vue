<script setup lang="ts">
/** A card in the middle of a page that needs no session. */
</script>

<template>
  <div class="open">
    <v-card class="card"><slot /></v-card>
  </div>
</template>

<style scoped>
.open {
  display: grid;
  place-items: center;
  min-height: 92vh;
  padding: 16px;
}
.card {
  display: grid;
  gap: 22px;
  width: min(440px, 100%);
  padding: 32px;
}
</style>
