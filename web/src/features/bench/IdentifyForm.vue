<script setup lang="ts">
import {
  newRecord,
  SURENESSES,
  type HatchlingView,
  type NewRecord,
  type RecordWarning,
} from '@karyotome/contract';
import {
  phenotypeLabel,
  notExcluded,
  shownBy,
  suggestSureness,
  type CallRecord,
  type Catalogue,
  type Ranking,
  type Observation,
  type Sureness,
} from '@karyotome/core';
import { sentences, warningWords } from '@karyotome/words';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday, oddsWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';

/**
 * Says what one is. The list proposes, the breeder decides: anything may be typed, and what goes against the odds asks for a
 * reason.
 */
const props = defineProps<{
  hatchling: HatchlingView;
  ranking: Ranking | null;
  observations: Readonly<Record<string, Observation>>;
  catalogue: Catalogue;
  /** How this person's calls proved, gene by gene. */
  calls: readonly CallRecord[];
}>();
const emit = defineEmits<{ done: [] }>();
const session = useSession();
const notices = useNotices();

interface Draft {
  genes: string | null;
  /** Null: as proposed. */
  sure: (typeof SURENESSES)[number] | null;
  by: string;
  on: string;
  override: string | null;
}
const { draft, discard, submit, errorsOf, general, busy } = useForm<
  Draft,
  NewRecord,
  { id: string; warnings: RecordWarning[] }
>({
  key: `identify.${props.hatchling.id}`,
  initial: () => ({ genes: '', sure: null, by: session.name, on: farmToday(), override: null }),
  schema: newRecord,
  toInput: ({ genes, by, on, override }): unknown => ({
    kind: 'identification',
    on,
    body: {
      genes: genes ?? '',
      sure: sure.value,
      by,
      ...(override ? { override } : {}),
      markers: { ...props.observations },
      odds: chosen.value ? { pBefore: chosen.value.pBefore, p: chosen.value.p } : null,
      alternatives: alternatives.value,
    },
  }),
  send: (record) => api.addRecord(props.hatchling.id, record),
});
const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));

const shown = computed(() => shownBy(draft.genes ?? '', props.catalogue));
const isNamed = computed(() => (draft.genes ?? '').trim() !== '');
const isSamePhenotype = (phenotype: Readonly<Record<string, string>>): boolean =>
  Object.keys(phenotype).length === Object.keys(shown.value).length &&
  Object.entries(phenotype).every(([locus, text]) => shown.value[locus] === text);
const chosen = computed(() =>
  isNamed.value
    ? (props.ranking?.candidates.find(({ phenotype }) => isSamePhenotype(phenotype)) ?? null)
    : null,
);
const isAgainst = computed(() => {
  const [first] = props.ranking?.candidates ?? [];
  return (
    isNamed.value && first !== undefined && chosen.value !== first && (chosen.value?.p ?? 0) < 0.5 * first.p
  );
});
const alternatives = computed(() =>
  (props.ranking?.candidates ?? [])
    .filter((one) => one !== chosen.value && one.p >= 0.02)
    .slice(0, 8)
    .map(({ label, p }) => ({ genes: label, p })),
);
const suggested = computed(() => {
  const phenotype = new Set(Object.values(chosen.value?.phenotype ?? shown.value));
  return suggestSureness(
    chosen.value?.p ?? 0,
    props.calls.filter((call) => phenotype.has(call.phenotype)),
  );
});
const sure = computed((): Sureness => draft.sure ?? suggested.value.sure);
/** Genes that the eye could not rule out: offered for the brackets, each one a touch. */
const open = computed(() =>
  props.ranking && isNamed.value ? notExcluded(props.ranking, shown.value, props.catalogue) : [],
);
const isBracketed = (label: string): boolean =>
  (draft.genes ?? '').toLowerCase().includes(`(${label.toLowerCase()})`);
function bracket(label: string): void {
  const text = draft.genes ?? '';
  draft.genes = isBracketed(label)
    ? text.replace(new RegExp(`\\s*\\(${label.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\)`, 'i'), '')
    : `${text.trim()} (${label})`;
}

/** Takes a candidate of the list, with what it leaves open in brackets. */
function take(phenotype: Readonly<Record<string, string>>): void {
  const label = phenotypeLabel(phenotype, props.catalogue);
  const left = props.ranking ? notExcluded(props.ranking, phenotype, props.catalogue) : [];
  draft.genes = [label, ...left.map((one) => `(${one.label})`)].join(' ');
  draft.sure = null;
}
defineExpose({ take });
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  const { id, warnings } = sent.value;
  if (warnings.length > 0)
    notices.warn(sentences(['Recorded, but flagged', ...warnings.map((one) => warningWords(one, reader()))]));
  else notices.say(`${props.hatchling.number} identified`, async () => void (await undoing.run(id)));
  emit('done');
}
</script>

<template>
  <form class="form" novalidate :aria-label="`Identify ${hatchling.number}`" @submit.prevent="send">
    <OwnGenesField
      v-model="draft.genes"
      label="Identified as"
      :errors="errorsOf('body.genes')"
      hint="Choose from the list or type. In brackets what may be there unseen: (OD)"
    />
    <div v-if="open.length > 0" class="row small">
      <span>Not ruled out:</span>
      <v-chip
        v-for="one in open"
        :key="one.phenotype"
        label
        :variant="isBracketed(one.label) ? 'flat' : 'outlined'"
        :color="isBracketed(one.label) ? 'primary' : undefined"
        :aria-pressed="isBracketed(one.label)"
        tabindex="0"
        @click="bracket(one.label)"
        >({{ one.label }}) {{ oddsWords(one.p) }}</v-chip
      >
    </div>
    <v-text-field
      v-if="isAgainst"
      v-model="draft.override"
      label="Why against the odds"
      hint="The odds rank another look higher. Your reason is kept with the record."
      persistent-hint
      :error-messages="errorsOf('body.override')"
    />
    <div class="pair">
      <div>
        <span class="small">How sure</span>
        <v-btn-toggle
          :model-value="sure"
          class="sure"
          aria-label="How sure"
          @update:model-value="draft.sure = $event"
        >
          <v-btn v-for="word in SURENESSES" :key="word" :value="word">{{ word }}</v-btn>
        </v-btn-toggle>
      </div>
      <v-text-field v-model="draft.by" label="By whom" :error-messages="errorsOf('body.by')" />
      <DayField v-model="draft.on" label="Day" :errors="errorsOf('on')" />
    </div>
    <p v-if="isNamed && draft.sure === null" class="small soft">
      {{
        suggested.learned
          ? `Proposed from your own calls of this gene: ${suggested.learned.right} of ${suggested.learned.settled} proved right.`
          : 'Proposed from the odds. You decide.'
      }}
    </p>
    <p v-if="isNamed && ranking && !chosen" class="small warn">
      Not among what this pair can give as recorded. It can be recorded anyway, and is flagged with the
      reason.
    </p>
    <v-alert v-if="general()" type="error" variant="tonal" density="compact" :icon="false" role="alert">{{
      general()
    }}</v-alert>
    <div class="row">
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">{{
        hatchling.identified ? 'Record again' : 'Record identification'
      }}</v-btn>
      <v-btn v-if="isNamed" variant="text" @click="discard">Clear</v-btn>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  padding-top: 6px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: end;
  gap: 12px;
}
.pair > :first-child {
  grid-column: 1 / -1;
}
.sure {
  display: flex;
  margin-top: 4px;
}
.sure :deep(.v-btn) {
  flex: 1;
  min-width: 0;
  padding: 0 8px;
  text-transform: capitalize;
}
.warn {
  color: rgb(var(--v-theme-warning));
  font-weight: 560;
}
@media (width < 600px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
