<script setup lang="ts">
import { mdiCameraOutline, mdiChevronLeft, mdiChevronRight, mdiRotateRight } from '@mdi/js';
import { computed, onScopeDispose, ref } from 'vue';

/** Pictures of the cards that animals were kept by, one beside the form at a time. They stay on this device. */
const at = defineModel<number>('at', { default: 0 });
const input = ref<HTMLInputElement | null>(null);
const cards = ref<{ url: string; name: string; quarters: number }[]>([]);
const current = computed(() => cards.value[at.value]);
function chosen(event: Event): void {
  const field = event.target as HTMLInputElement;
  const files = [...(field.files ?? [])];
  cards.value.push(
    ...files.map((file) => ({ url: URL.createObjectURL(file), name: file.name, quarters: 0 })),
  );
  field.value = '';
}
const go = (by: 1 | -1): void => {
  at.value = Math.min(Math.max(0, cards.value.length - 1), Math.max(0, at.value + by));
};
/** To the next card, where there is one. */
defineExpose({ next: () => go(1) });
onScopeDispose(() => cards.value.forEach(({ url }) => URL.revokeObjectURL(url)));
</script>

<template>
  <section class="cards" aria-label="Cards">
    <div class="row">
      <v-btn variant="outlined" :prepend-icon="mdiCameraOutline" @click="input?.click()">{{
        cards.length === 0 ? 'Photograph the cards…' : 'More…'
      }}</v-btn>
      <input
        ref="input"
        type="file"
        accept="image/*"
        multiple
        hidden
        aria-label="Pictures of cards"
        @change="chosen"
      />
      <template v-if="current">
        <v-btn :icon="mdiChevronLeft" variant="text" aria-label="The card before" @click="go(-1)" />
        <span class="small num">{{ at + 1 }} of {{ cards.length }}</span>
        <v-btn :icon="mdiChevronRight" variant="text" aria-label="The next card" @click="go(1)" />
        <v-btn :icon="mdiRotateRight" variant="text" aria-label="Turn the card" @click="current.quarters++" />
      </template>
    </div>
    <a v-if="current" :href="current.url" target="_blank" class="view"
      ><img
        :src="current.url"
        :alt="`Card ${at + 1}: ${current.name}`"
        :style="{ transform: `rotate(${current.quarters * 90}deg)` }"
    /></a>
    <p v-else class="small soft">
      Take a picture of each card, or choose several at once. They stand here while you type, and are not sent
      anywhere.
    </p>
  </section>
</template>

<style scoped>
.cards {
  display: grid;
  align-content: start;
  gap: 10px;
}
.view {
  display: grid;
  place-items: center;
  aspect-ratio: 1;
  overflow: hidden;
}
.view img {
  max-width: 100%;
  max-height: 100%;
  object-fit: contain;
}
</style>
