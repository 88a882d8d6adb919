<script setup lang="ts">
/** The mark with what a page without a session is for. */
defineProps<{ title: string; text: string }>();
</script>

<template>
  <div class="row head">
    <img src="/mark.svg" alt="" width="44" height="44" />
    <div>
      <h1>{{ title }}</h1>
      <p class="soft small">{{ text }}</p>
    </div>
  </div>
</template>

<style scoped>
.head {
  flex-wrap: nowrap;
}
</style>
