<script setup lang="ts">
/** What is wrong with a form as a whole; nothing where nothing is. */
defineProps<{ text: string | null }>();
</script>

<template>
  <v-alert v-if="text" type="error" variant="tonal" density="compact" :icon="false" role="alert">{{
    text
  }}</v-alert>
</template>
