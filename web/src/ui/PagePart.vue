<script setup lang="ts">
/** A part of a page of settings: a heading, and what it is about below one another. */
defineProps<{ title: string }>();
</script>

<template>
  <section class="part">
    <h2>{{ title }}</h2>
    <slot />
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
  max-width: 620px;
  margin-top: 28px;
}
</style>
