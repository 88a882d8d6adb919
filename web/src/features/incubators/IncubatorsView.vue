<script setup lang="ts">
import type { IncubatorView } from '@karyotome/contract';
import { alarmWords } from '@karyotome/words';
import { mdiPlus } from '@mdi/js';
import { ref } from 'vue';
import { api } from '../../api/resources.ts';
import { momentDay, momentWords, temperatureWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useIncubators } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useLongWork } from '../../stores/useLongWork.ts';
import { useWrite } from '../../stores/useWrite.ts';
import StateBlock from '../../ui/StateBlock.vue';
import WorkProgress from '../../ui/WorkProgress.vue';
import SeasonNav from '../season/SeasonNav.vue';
import ClimateChart from './ClimateChart.vue';
import LoggerZoneDialog from './LoggerZoneDialog.vue';
import IncubatorDialog from './IncubatorDialog.vue';
import ReadingDialog from './ReadingDialog.vue';

const { data, status, error, refetch } = useIncubators();
const session = useSession();
const notices = useNotices();
const adding = ref(false);
const changing = ref<IncubatorView | null>(null);
const reading = ref<IncubatorView | null>(null);
const work = useLongWork();
const importing = useWrite((id: string, file: File, zone: string) =>
  work.run((job) => api.importReadings(id, file, zone, job)),
);
/** The file that waits for its logger's zone. */
const asked = ref<{ incubator: IncubatorView; file: File } | null>(null);
const refused = ref<{ name: string; lines: string[] } | null>(null);
const LINES_SHOWN = 8;

function takeFile(incubator: IncubatorView, event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  refused.value = null;
  asked.value = { incubator, file };
}

async function importFile(timeZone: string): Promise<void> {
  const { incubator, file } = asked.value!;
  asked.value = null;
  const sent = await importing.run(incubator.id, file, timeZone);
  if (sent) {
    const { taken, known, from, to } = sent.value;
    notices.say(`${taken} readings taken, ${known} were known: ${momentDay(from)} to ${momentDay(to)}`);
    return;
  }
  const lines = importing.problems.value.map(({ field, message }) => `${field} ${message}`);
  refused.value = { name: file.name, lines: lines.length > 0 ? lines : [importing.message.value ?? ''] };
}
const SOURCE: Readonly<Record<string, string>> = {
  hand: 'by hand',
  logger: 'from a logger',
  simulated: 'simulated',
};
const lastWords = ({ last }: IncubatorView): string =>
  last
    ? `${temperatureWords(last.celsius)}${last.humidity === null ? '' : `, ${Math.round(last.humidity)}% humidity`}`
    : 'No reading yet';
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">Incubators</h1>
      <SeasonNav />
      <v-btn v-if="session.mayHouse" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >New incubator</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No incubator yet"
      empty-text="An incubator has a setting and limits. Readings come by hand, from a logger's file, or, for trying out, from a simulated sensor; out of range or silent, it stands on Today."
      @retry="refetch()"
    >
      <template v-if="session.mayHouse" #first
        ><v-btn color="primary" @click="adding = true">New incubator</v-btn></template
      >
      <v-alert v-if="refused" type="error" variant="tonal" :icon="false" class="mb-4" role="alert">
        <strong>{{ refused.name }} was not taken: nothing of it was kept.</strong>
        <ul>
          <li v-for="line in refused.lines.slice(0, LINES_SHOWN)" :key="line">{{ line }}</li>
          <li v-if="refused.lines.length > LINES_SHOWN">
            and {{ refused.lines.length - LINES_SHOWN }} more lines
          </li>
        </ul>
      </v-alert>
      <WorkProgress
        v-if="work.isRunning.value"
        class="mb-4"
        :progress="work.progress.value"
        @cancel="work.cancel()"
      />
      <LoggerZoneDialog
        v-if="asked"
        :file-name="asked.file.name"
        @close="asked = null"
        @chosen="importFile"
      />
      <div class="grid">
        <v-card v-for="incubator in data ?? []" :key="incubator.id" class="incubator">
          <div class="row">
            <h2>{{ incubator.name }}</h2>
            <v-chip v-if="incubator.sensor !== 'none'" label size="small">Simulated sensor</v-chip>
            <v-spacer />
            <span class="soft small">set to {{ temperatureWords(incubator.setC) }}</span>
          </div>
          <v-alert
            v-for="alarm in incubator.alarms"
            :key="alarm.code"
            type="warning"
            variant="tonal"
            density="compact"
            :icon="false"
            >{{ alarmWords(alarm, reader()) }}</v-alert
          >
          <p>
            <strong class="now">{{ lastWords(incubator) }}</strong>
            <span v-if="incubator.last" class="small soft">{{
              ` ${momentWords(incubator.last.at)}, ${SOURCE[incubator.last.source]}`
            }}</span>
          </p>
          <ClimateChart
            v-if="incubator.series.length > 1"
            :points="
              incubator.series.map(({ at, celsius, humidity }) => ({ x: Date.parse(at), celsius, humidity }))
            "
            :set-c="incubator.setC"
            :low-c="incubator.lowC"
            :high-c="incubator.highC"
            x-name="time"
          />
          <div class="row">
            <span v-if="incubator.clutches.length === 0" class="small soft">Empty</span>
            <v-btn
              v-for="clutch in incubator.clutches"
              :key="clutch.id"
              size="small"
              variant="outlined"
              :to="`/season/clutches/${clutch.id}`"
              >{{ clutch.name }}, day {{ clutch.day }}</v-btn
            >
          </div>
          <div v-if="session.mayHouse" class="row">
            <v-btn variant="outlined" @click="reading = incubator">Reading…</v-btn>
            <v-btn variant="outlined" tag="label" :loading="importing.busy.value"
              >Logger file…
              <input
                type="file"
                accept=".csv,text/csv"
                class="file"
                :aria-label="`Logger file for ${incubator.name}`"
                @change="takeFile(incubator, $event)"
            /></v-btn>
            <v-spacer />
            <v-btn variant="text" @click="changing = incubator">Change…</v-btn>
          </div>
        </v-card>
      </div>
      <p class="small soft notes">
        A logger's file is CSV with a header: a column for the time, one for the temperature, and if there is
        one, the humidity. The same file again adds nothing twice. An alarm here does not ring: it stands on
        Today. Keep a thermostat with a cut-out of its own on every heater.
      </p>
    </StateBlock>
    <IncubatorDialog v-if="adding" :incubator="null" @close="adding = false" />
    <IncubatorDialog v-if="changing" :incubator="changing" @close="changing = null" />
    <ReadingDialog v-if="reading" :incubator="reading" @close="reading = null" />
  </div>
</template>

<style scoped>
.place-head .title {
  margin-right: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(480px, 100%), 1fr));
  gap: 16px;
  align-items: start;
}
.incubator {
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
.notes {
  max-width: 760px;
  margin-top: 16px;
}
</style>
