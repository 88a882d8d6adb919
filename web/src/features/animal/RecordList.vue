<script setup lang="ts">
import type { AnimalView, RecordView } from '@karyotome/contract';
import { KIND_WORDS, recordWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { identificationWords } from '../records/record-defaults.ts';
import ReasonDialog from '../../ui/ReasonDialog.vue';

/** The whole record, newest first. What was corrected or voided stays to be seen. */
const props = defineProps<{ animal: AnimalView; highlighted: string | null }>();
defineEmits<{ correct: [RecordView] }>();
const session = useSession();
const notices = useNotices();
const catalogue = useCatalogue();
const kind = ref<RecordView['kind'] | 'all'>('all');
const withVoided = ref(false);
const count = ref(30);
const voiding = ref<RecordView | null>(null);
const voidWrite = useWrite(api.voidRecord);
const kinds = computed(() => [...new Set(props.animal.records.map((record) => record.kind))]);
const shown = computed(() =>
  props.animal.records.filter(
    (record) =>
      (kind.value === 'all' || record.kind === kind.value) && (withVoided.value || record.voided === null),
  ),
);
const visible = computed(() => {
  const at = shown.value.findIndex((record) => record.id === props.highlighted);
  return shown.value.slice(0, Math.max(count.value, at + 1));
});
function words(record: RecordView): string {
  if (record.kind === 'identification') return identificationWords(record.body, catalogue.value);
  if (record.kind !== 'move') return recordWords(record, reader());
  const { from, to } = record.body;
  return `${from ?? 'no tub'} → ${to ?? 'no tub'}: ${recordWords(record, reader())}`;
}
async function confirmVoid(reason: string): Promise<void> {
  const done = await voidWrite.run(voiding.value!.id, reason);
  if (done) notices.say('Voided; it stays to be seen under “also voided”');
  else notices.warn(voidWrite.message.value ?? 'It could not be voided');
  voiding.value = null;
}
</script>

<template>
  <v-card class="box">
    <div class="row">
      <h2>Record</h2>
      <v-chip-group v-model="kind" mandatory selected-class="chosen" aria-label="Kind of record">
        <v-chip value="all" label size="small">All {{ animal.records.length }}</v-chip>
        <v-chip v-for="entry in kinds" :key="entry" :value="entry" label size="small">{{
          KIND_WORDS[entry]
        }}</v-chip>
      </v-chip-group>
      <v-spacer />
      <v-switch v-model="withVoided" label="Also voided" hide-details density="compact" color="primary" />
    </div>
    <p v-if="shown.length === 0" class="soft">Nothing recorded yet.</p>
    <ul class="list">
      <li
        v-for="record in visible"
        :id="`record-${record.id}`"
        :key="record.id"
        :class="{ voided: record.voided, lit: record.id === highlighted }"
      >
        <span class="num small">{{ dayWords(record.on) }}</span>
        <span class="small soft">{{ KIND_WORDS[record.kind] }}</span>
        <span class="words">
          <span class="text">{{ words(record) }}</span>
          <span v-if="record.note" class="small soft"> {{ record.note }}</span>
          <span v-if="record.voided" class="small">
            {{ record.voided.replacedBy ? 'corrected' : 'voided' }} by {{ record.voided.by }}:
            {{ record.voided.reason }}</span
          >
        </span>
        <span class="small soft author">{{ record.from ?? record.author }}</span>
        <span v-if="session.mayEnter(record.kind) && !record.voided && record.from === null" class="acts">
          <v-btn
            size="small"
            variant="text"
            :aria-label="`Correct ${KIND_WORDS[record.kind]} of ${dayWords(record.on)}`"
            @click="$emit('correct', record)"
            >Correct</v-btn
          >
          <v-btn
            size="small"
            variant="text"
            :aria-label="`Void ${KIND_WORDS[record.kind]} of ${dayWords(record.on)}`"
            @click="voiding = record"
            >Void</v-btn
          >
        </span>
      </li>
    </ul>
    <div v-if="shown.length > visible.length" class="row">
      <v-btn variant="text" @click="count += 100"
        >Show earlier records ({{ shown.length - visible.length }})</v-btn
      >
    </div>
    <p v-if="session.mayManage" class="small">
      <router-link :to="{ path: '/settings/history', query: { animalId: animal.id } }"
        >History: who entered, changed and removed what</router-link
      >
    </p>
    <ReasonDialog
      v-if="voiding"
      title="Void this record"
      :text="words(voiding)"
      note="It is kept and can be seen, but counts for nothing any more."
      submit-text="Void"
      @close="voiding = null"
      @confirm="confirmVoid"
    />
  </v-card>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
  padding: 16px;
}
.list {
  list-style: none;
  padding: 0;
}
.list li {
  display: grid;
  grid-template-columns: 96px 104px 1fr auto auto;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  padding: 2px 6px;
}
.list li + li {
  border-top: 1px solid var(--hair);
}
.voided .text {
  text-decoration: line-through;
}
.lit {
  background: rgb(var(--v-theme-surface-variant));
}
.words {
  overflow-wrap: anywhere;
}
.chosen {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-on-primary)) !important;
}
@media (width < 760px) {
  .list li {
    grid-template-columns: 90px 1fr;
    gap: 0 8px;
    padding: 8px 0;
  }
  .words {
    grid-column: 1 / -1;
  }
  .author {
    display: none;
  }
  .acts {
    grid-column: 1 / -1;
  }
}
</style>
