<script setup lang="ts">
import {
  LABEL_SIZES,
  labelOrder,
  type HatchlingView,
  type LabelOrder,
  type LabelPreview,
} from '@karyotome/contract';
import { computed, ref, watch } from 'vue';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { farmDayOf } from '../../format/farm-day.ts';
import { agoWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import CheckList from '../../ui/CheckList.vue';
import FormDialog from '../../ui/FormDialog.vue';
import LabelDrawing from './LabelDrawing.vue';

/** Labels of a clutch: numbers alone while nobody has looked yet, in full afterwards; old ones are known. */
type Labelled = Pick<HatchlingView, 'id' | 'number' | 'identified'> &
  Partial<Pick<HatchlingView, 'printedLabel'>>;
const props = defineProps<{ hatchlings: readonly Labelled[]; title: string }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const SIZE_WORDS: Readonly<Record<LabelOrder['size'], string>> = {
  'roll-50x25': 'Roll, 50 × 25 mm',
  'roll-57x32': 'Roll, 57 × 32 mm',
  'roll-62x29': 'Roll, 62 × 29 mm',
  'roll-76x51': 'Roll, 76 × 51 mm',
  'a4-3x7': 'A4 sheet, 3 × 7 of 63.5 × 38.1 mm',
  'a4-3x8': 'A4 sheet, 3 × 8 of 70 × 37 mm',
  'letter-3x10': 'Letter sheet, 3 × 10 of 66.7 × 25.4 mm',
  'letter-2x5': 'Letter sheet, 2 × 5 of 101.6 × 50.8 mm',
};
const SIZES = LABEL_SIZES.map((value) => ({ value, title: SIZE_WORDS[value] }));
const stale = props.hatchlings.filter(({ printedLabel }) => printedLabel?.isOutOfDate);
const { draft, submit, errorsOf, general, busy } = useForm({
  key: 'labels',
  initial: () => ({
    kind: 'full' as LabelOrder['kind'],
    size: 'roll-57x32' as LabelOrder['size'],
    skip: 0 as number | null,
  }),
  schema: labelOrder,
  toInput: ({ kind, size, skip }): unknown => ({
    animalIds: chosen.value,
    kind,
    size,
    ...(isSheet.value && skip ? { skip } : {}),
  }),
  send: (order: LabelOrder) => api.printLabels(order),
});
const isSheet = computed((): boolean => !draft.size.startsWith('roll'));
const isNobodyKnown = props.hatchlings.every(({ identified }) => !identified);
if (isNobodyKnown) draft.kind = 'numbers';
const chosen = ref<string[]>((stale.length > 0 ? stale : props.hatchlings).map(({ id }) => id));
const preview = ref<LabelPreview | null>(null);
watch(
  [() => draft.kind, () => draft.size, chosen],
  async () => {
    if (chosen.value.length === 0) return void (preview.value = null);
    const order = { kind: draft.kind, size: draft.size, animalIds: [...chosen.value] };
    try {
      const drawn = await api.previewLabels(order);
      if (JSON.stringify(order.animalIds) === JSON.stringify(chosen.value)) preview.value = drawn;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      notices.warn(error.message);
    }
  },
  { immediate: true },
);
/** Nothing where it is not known. */
function stateWords({ printedLabel: label }: Labelled): string {
  if (label === undefined) return '';
  if (!label) return 'never printed';
  const when = agoWords(farmDayOf(label.printedAt));
  return label.isOutOfDate ? `out of date, printed ${when}` : `printed ${when}`;
}
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  window.open(api.labelsUrl(sent.value.id), '_blank');
  notices.say(`${chosen.value.length} labels made as a PDF`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="title"
    submit-text="Make the PDF"
    :max-width="900"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @submit="send"
  >
    <v-btn-toggle v-model="draft.kind" class="wide" aria-label="What they say">
      <v-btn value="numbers">Numbers only</v-btn>
      <v-btn value="full">In full</v-btn>
    </v-btn-toggle>
    <v-select v-model="draft.size" label="Size" :items="SIZES" :error-messages="errorsOf('size')" />
    <v-number-input
      v-if="isSheet"
      v-model="draft.skip"
      label="Places used already on the sheet"
      :min="0"
      control-variant="hidden"
      :error-messages="errorsOf('skip')"
    />
    <CheckList
      v-model="chosen"
      legend="Which"
      :items="
        hatchlings.map((one) => ({
          value: one.id,
          title: [one.number, stateWords(one)].filter(Boolean).join(', '),
        }))
      "
      :errors="errorsOf('animalIds').map(() => 'Choose at least one.')"
      class="wide who"
    />
    <div v-if="preview" class="wide drawings" aria-label="Preview">
      <LabelDrawing v-for="label in preview.labels" :key="label.animalId" :label="label" :preview="preview" />
    </div>
  </FormDialog>
</template>

<style scoped>
.who {
  --item: 250px;
}
.drawings {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px;
  max-height: 330px;
  padding: 10px;
  overflow-y: auto;
  border-radius: 10px;
  background: rgb(var(--v-theme-surface-variant));
}
</style>
