<script setup lang="ts" generic="Place extends NewRoom & ClimateView & { id: string }">
import type { ClimateView, NewReading, NewRoom, ReadingsImport } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { shallowRef } from 'vue';
import type { LongWork } from '../../api/call.ts';
import type { ListName } from '../../api/export-resources.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import ClimateCard from './ClimateCard.vue';
import LoggerFileState from './LoggerFileState.vue';
import ReadingDialog from './ReadingDialog.vue';
import { useLoggerFile } from './useLoggerFile.ts';

/** All places of a kind whose climate is watched, one card each. */
const props = defineProps<{
  title: string;
  list: ListName;
  /** What adds one. */
  addText: string;
  emptyTitle: string;
  emptyText: string;
  notes: string;
  places: readonly Place[] | undefined;
  status: 'pending' | 'success' | 'error';
  error: Error | null;
  addReading: (id: string, input: NewReading) => Promise<unknown>;
  importReadings: (id: string, file: Blob, timeZone: string, work: LongWork) => Promise<ReadingsImport>;
}>();
const emit = defineEmits<{ retry: [] }>();
defineSlots<{
  nav: () => unknown;
  /** What else a card shows. */
  card: (card: { place: Place }) => unknown;
  /** Where one is added (null) or changed. */
  dialog: (dialog: { place: Place | null; close: () => void }) => unknown;
}>();
const session = useSession();
/** Undefined while nothing is edited. */
const editing = shallowRef<Place | null>();
const reading = shallowRef<Place>();
const loggerFile = useLoggerFile(props.importReadings);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1 class="title">{{ title }}</h1>
      <slot name="nav" />
      <TableLink v-if="places?.length" :list="list" />
      <v-btn v-if="session.mayHouse" color="primary" :prepend-icon="mdiPlus" @click="editing = null">{{
        addText
      }}</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="places?.length === 0"
      :empty-title="emptyTitle"
      :empty-text="emptyText"
      @retry="emit('retry')"
    >
      <template v-if="session.mayHouse" #first
        ><v-btn color="primary" @click="editing = null">{{ addText }}</v-btn></template
      >
      <LoggerFileState :file="loggerFile" />
      <div class="grid">
        <ClimateCard
          v-for="place in places ?? []"
          :key="place.id"
          :place="place"
          :busy="loggerFile.busy.value"
          @reading="reading = place"
          @change="editing = place"
          @file="loggerFile.take(place.id, $event)"
        >
          <slot name="card" :place="place" />
        </ClimateCard>
      </div>
      <p class="small soft notes">{{ notes }}</p>
    </StateBlock>
    <slot v-if="editing !== undefined" name="dialog" :place="editing" :close="() => (editing = undefined)" />
    <ReadingDialog v-if="reading" :place="reading" :add="addReading" @close="reading = undefined" />
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
.notes {
  max-width: 760px;
  margin-top: 16px;
}
</style>
