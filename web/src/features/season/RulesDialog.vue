<script setup lang="ts">
import { seasonRules, type SeasonBoardView } from '@karyotome/contract';
import { CUTTING_CAUTION } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useForm } from '../../stores/useForm.ts';
import FormDialog from '../../ui/FormDialog.vue';
import MassField from '../../ui/MassField.vue';

/** What this keeper decides about breeding: floors, rests, loads, bounds, and the cutting protocol. */
const props = defineProps<{ board: SeasonBoardView }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
/** Shares are kept from 0 to 1, and shown in percent. */
const PERCENT = ['inbreedingBound', 'storedSpermShare', 'missedSeason'] as const;
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
const inPercent = (share: number): number => Math.round(share * 1e4) / 100;
const { rules } = props.board;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: 'season-rules',
  initial: () => ({
    ...rules,
    ...Object.fromEntries(PERCENT.map((key) => [key, inPercent(rules[key])])),
  }),
  schema: seasonRules,
  toInput: (values) => ({
    ...values,
    ...Object.fromEntries(PERCENT.map((key) => [key, values[key] / 100])),
  }),
  send: (input) => api.changeSeasonRules(input, props.board.rulesVersion),
});
const GROUPS = [
  {
    title: 'Females',
    fields: [
      { key: 'femaleFloorG', label: 'From this weight', isMass: true },
      { key: 'olderFemaleFloorG', label: 'Older ones from', isMass: true },
      { key: 'olderFromYears', label: 'Older means from, years' },
      { key: 'femaleFromYears', label: 'From this age, years' },
      { key: 'femaleRestDays', label: 'Rest after laying, days' },
      { key: 'missedSeason', label: 'Chance to lay nothing, %' },
    ],
  },
  {
    title: 'Males',
    fields: [
      { key: 'maleFloorG', label: 'From this weight', isMass: true },
      { key: 'maleFromYears', label: 'From this age, years' },
      { key: 'maleLoad', label: 'Females in a season' },
      { key: 'maleRestDays', label: 'Rest after a lock, days' },
      { key: 'maleLossPercent', label: 'Rest when down by, %' },
    ],
  },
  {
    title: 'Kin and stored sperm',
    fields: [
      { key: 'inbreedingBound', label: 'Inbreeding of young at most, %' },
      { key: 'storedSpermShare', label: 'Earlier mates together, %' },
      { key: 'storedSpermDays', label: 'Counted back to, days' },
    ],
  },
] as const;
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say('The rules are saved');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Rules of your season"
    subtitle="They begin as common practice and are yours to change"
    submit-text="Save the rules"
    :max-width="720"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <template v-for="group in GROUPS" :key="group.title">
      <h3 class="wide">{{ group.title }}</h3>
      <template v-for="field in group.fields" :key="field.key">
        <MassField
          v-if="'isMass' in field"
          v-model="draft[field.key]"
          :label="field.label"
          :error-messages="errorsOf(field.key)"
        />
        <v-number-input
          v-else
          v-model="draft[field.key]"
          :label="field.label"
          control-variant="hidden"
          :precision="null"
          :error-messages="errorsOf(field.key)"
        />
      </template>
    </template>
    <h3 class="wide">Eggs and the calendar</h3>
    <v-select
      v-model="draft.cutting"
      label="Cutting eggs"
      :items="[
        { value: 'never', title: 'Never' },
        { value: 'after-first-pip', title: 'All after the first pip' },
        { value: 'unpipped-at-day', title: 'Unpipped at a day' },
      ]"
      :error-messages="errorsOf('cutting')"
    />
    <v-number-input
      v-if="draft.cutting === 'unpipped-at-day'"
      v-model="draft.cutDay"
      label="That day"
      control-variant="hidden"
      :error-messages="errorsOf('cutDay')"
    />
    <v-select
      v-model="draft.seasonFromMonth"
      label="A season's pairings begin in"
      :items="MONTHS.map((title, i) => ({ value: i + 1, title }))"
      :error-messages="errorsOf('seasonFromMonth')"
    />
    <p v-if="draft.cutting !== 'never'" class="wide small soft">{{ CUTTING_CAUTION }}</p>
  </FormDialog>
</template>
