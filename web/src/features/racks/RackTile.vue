<script setup lang="ts">
import type { RackSummary, RackView } from '@karyotome/contract';
import { useElementVisibility } from '@vueuse/core';
import { ref, watch } from 'vue';
import { useRack } from '../../stores/queries.ts';

/** The place of a rack that is read when it comes into sight: a room may have hundreds. */
const props = defineProps<{ rack: RackSummary }>();
const emit = defineEmits<{ loaded: [RackView] }>();
defineSlots<{ default(read: { rack: RackView }): unknown }>();
const AHEAD_PX = 400;
/** About the height of one level of tubs. */
const LEVEL_PX = 74;
const tile = ref<HTMLElement | null>(null);
const visible = useElementVisibility(tile, { rootMargin: `${AHEAD_PX}px` });
const seen = ref(false);
watch(visible, (is) => (seen.value ||= is), { immediate: true });
const { data } = useRack(
  () => props.rack.id,
  () => seen.value,
);
watch(data, (rack) => rack && emit('loaded', rack), { immediate: true });
</script>

<template>
  <div ref="tile" class="tile">
    <slot v-if="data" :rack="data" />
    <v-skeleton-loader v-else type="image" :height="rack.levels * LEVEL_PX" :aria-label="rack.name" />
  </div>
</template>

<style scoped>
.tile {
  min-width: 0;
}
</style>
