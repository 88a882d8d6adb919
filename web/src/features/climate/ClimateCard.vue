<script setup lang="ts">
import type { ClimateView, NewRoom } from '@karyotome/contract';
import { alarmWords } from '@karyotome/words';
import { momentWords, temperatureWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useSession } from '../../stores/session.ts';
import ClimateChart from './ClimateChart.vue';

/** A place whose climate is watched: how it is there now, what is wrong, and how it was. */
defineProps<{
  place: NewRoom & ClimateView & { readonly setC?: number };
  /** Whether a logger's file is being read. */
  busy: boolean;
}>();
const emit = defineEmits<{ reading: []; change: []; file: [file: File] }>();
const session = useSession();
const SOURCE: Readonly<Record<string, string>> = {
  hand: 'by hand',
  logger: 'from a logger',
  simulated: 'simulated',
};
const lastWords = ({ last }: ClimateView): string =>
  last
    ? `${temperatureWords(last.celsius)}${last.humidity === null ? '' : `, ${Math.round(last.humidity)}% humidity`}`
    : 'No reading yet';

function takeFile(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file) emit('file', file);
}
</script>

<template>
  <v-card tag="section" class="card" :aria-label="place.name">
    <div class="row">
      <h2>{{ place.name }}</h2>
      <v-chip v-if="place.sensor !== 'none'" label size="small">Simulated sensor</v-chip>
      <v-spacer />
      <span class="soft small">{{
        place.setC === undefined
          ? `${temperatureWords(place.lowC)} to ${temperatureWords(place.highC)}`
          : `set to ${temperatureWords(place.setC)}`
      }}</span>
    </div>
    <v-alert
      v-for="alarm in place.alarms"
      :key="alarm.code"
      type="warning"
      variant="tonal"
      density="compact"
      :icon="false"
      >{{ alarmWords(alarm, reader()) }}</v-alert
    >
    <p v-if="place.last || place.alarms.length === 0">
      <strong class="now">{{ lastWords(place) }}</strong>
      <span v-if="place.last" class="small soft">{{
        ` ${momentWords(place.last.at)}, ${SOURCE[place.last.source]}`
      }}</span>
    </p>
    <ClimateChart
      v-if="place.series.length > 1"
      :points="place.series.map(({ at, celsius, humidity }) => ({ x: Date.parse(at), celsius, humidity }))"
      :set-c="place.setC ?? null"
      :low-c="place.lowC"
      :high-c="place.highC"
      x-name="time"
    />
    <slot />
    <div v-if="session.mayHouse" class="row">
      <v-btn variant="outlined" @click="emit('reading')">Reading…</v-btn>
      <v-btn variant="outlined" tag="label" :loading="busy"
        >Logger file…
        <input
          type="file"
          accept=".csv,text/csv"
          class="file"
          :aria-label="`Logger file for ${place.name}`"
          @change="takeFile"
      /></v-btn>
      <v-spacer />
      <v-btn variant="text" @click="emit('change')">Change…</v-btn>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  gap: 10px;
  padding: 16px;
}
.now {
  font-size: 1.3rem;
}
.file {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
