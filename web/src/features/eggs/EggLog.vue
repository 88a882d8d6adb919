<script setup lang="ts">
import type { ClutchView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { agoWords, momentDay } from '../../format/format.ts';
import { logLines, type LogLine } from './egg-words.ts';

/** What was seen of a clutch, the latest first, each act to be taken back; and its cards as they were kept. */
const props = defineProps<{ clutch: ClutchView; mayChange: boolean }>();
defineEmits<{ takeBack: [ids: readonly string[]] }>();
const SHOWN = 6;
const isOpen = ref(false);
const lines = computed(() =>
  logLines(props.clutch.events, (id) => props.clutch.eggs.find((egg) => egg.id === id)?.position ?? 0),
);
const shown = computed<readonly LogLine[]>(() => (isOpen.value ? lines.value : lines.value.slice(0, SHOWN)));
</script>

<template>
  <v-card class="log">
    <h2>What was seen</h2>
    <p v-if="lines.length === 0" class="soft">Nothing yet.</p>
    <div v-for="line in shown" :key="line.ids[0]" class="seen">
      <span
        >{{ line.text }} <span class="small soft">{{ agoWords(line.on) }}, {{ line.author }}</span></span
      >
      <v-btn
        v-if="mayChange"
        size="small"
        variant="text"
        :aria-label="`Take back: ${line.text}`"
        @click="$emit('takeBack', line.ids)"
        >Take back</v-btn
      >
    </div>
    <v-btn v-if="lines.length > SHOWN" variant="text" @click="isOpen = !isOpen">{{
      isOpen ? 'Fewer' : `All ${lines.length}`
    }}</v-btn>
    <p v-if="clutch.note">{{ clutch.note }}</p>
    <p v-for="card in clutch.cards" :key="card.id" class="small">
      <a :href="api.clutchCardUrl(card.id)" target="_blank" rel="noopener"
        >Card of {{ momentDay(card.madeAt) }}</a
      >
      <span class="soft">{{ ` by ${card.by}` }}</span>
    </p>
  </v-card>
</template>

<style scoped>
.log {
  display: grid;
  gap: 12px;
  padding: 16px;
}
.seen {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 8px;
}
.seen + .seen {
  padding-top: 6px;
  border-top: 1px solid var(--hair);
}
</style>
