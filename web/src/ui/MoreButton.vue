<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core';
import { ref } from 'vue';

/** At the end of a list that goes on: reads more when it comes into sight, or is pressed. */
defineProps<{ busy?: boolean }>();
const emit = defineEmits<{ more: [] }>();
const end = ref<HTMLElement | null>(null);
const AHEAD_PX = 600;
useIntersectionObserver(end, ([entry]) => entry?.isIntersecting && emit('more'), {
  rootMargin: `${AHEAD_PX}px`,
});
</script>

<template>
  <p ref="end" class="more">
    <v-btn variant="text" :loading="busy ?? false" @click="emit('more')">Show more</v-btn>
  </p>
</template>

<style scoped>
.more {
  margin-top: 12px;
  text-align: center;
}
</style>
