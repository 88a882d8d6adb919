<script setup lang="ts">
/** One of several on a page of settings: what it is, what is known of it, and what can be done with it. */
defineProps<{ title: string; about?: string }>();
</script>

<template>
  <v-card class="line">
    <div class="what">
      <strong>{{ title }}</strong>
      <span v-if="about" class="small soft">{{ about }}</span>
    </div>
    <slot />
  </v-card>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 56px;
  padding: 8px 16px;
}
.what {
  display: grid;
  flex: 1 1 240px;
}
</style>
