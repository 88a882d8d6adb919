<script setup lang="ts">
import {
  newSeasonEvent,
  seasonEventCorrection,
  type BoardFemale,
  type NewSeasonEvent,
  type SeasonEventCorrection,
  type SeasonEventView,
} from '@karyotome/contract';
import { SEASON_EVENTS, type SeasonEventKind } from '@karyotome/core';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import { EVENT_WORDS, needsMale } from './season-words.ts';

/** Something of a female's season on a day of one's choice, or the correction of something noted wrong. */
const props = defineProps<{ female: BoardFemale; correcting: SeasonEventView | null }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const pairing = props.female.pairing!;
const sires = pairing.sires.filter(({ stored }) => !stored);
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `season-event.${pairing.id}.${props.correcting?.id ?? 'new'}`,
  initial: () => ({
    kind: (props.correcting?.kind ?? 'lock') as SeasonEventKind,
    on: (props.correcting?.on ?? farmToday()) as string | null,
    sireId: (props.correcting?.sireId ?? sires[0]?.id ?? null) as string | null,
    note: props.correcting?.note ?? '',
    reason: '',
  }),
  schema: props.correcting ? seasonEventCorrection : newSeasonEvent,
  toInput: ({ kind, on, sireId, note, reason }) => ({
    ...filled({ kind, on, sireId: needsMale(kind) ? sireId : null }),
    ...(note ? { note } : {}),
    ...(props.correcting ? { reason: reason || 'Corrected' } : {}),
  }),
  send: (input: NewSeasonEvent | SeasonEventCorrection) =>
    props.correcting
      ? api.correctSeasonEvent(props.correcting.id, input as SeasonEventCorrection)
      : api.addSeasonEvent(pairing.id, input),
});
async function send(): Promise<void> {
  if (!(await submit())) return;
  notices.say(`${props.female.number}: ${EVENT_WORDS[draft.kind].toLowerCase()} noted`);
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="
      correcting ? `Correct: ${EVENT_WORDS[correcting.kind].toLowerCase()}` : 'Something on another day'
    "
    :subtitle="`${female.number} ${female.name ?? ''}`"
    :submit-text="correcting ? 'Correct' : 'Note it'"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <v-select
      v-if="!correcting"
      v-model="draft.kind"
      label="What"
      :items="SEASON_EVENTS.map((value) => ({ value, title: EVENT_WORDS[value] }))"
      :error-messages="errorsOf('kind')"
    />
    <v-select
      v-if="needsMale(draft.kind)"
      v-model="draft.sireId"
      label="Male"
      :items="sires.map(({ id, number }) => ({ value: id, title: number }))"
      :error-messages="errorsOf('sireId')"
    />
    <DayField v-model="draft.on" label="On" :errors="errorsOf('on')" />
    <v-text-field v-model="draft.note" class="wide" label="Note" :error-messages="errorsOf('note')" />
    <v-text-field
      v-if="correcting"
      v-model="draft.reason"
      class="wide"
      label="Why it is corrected"
      placeholder="Corrected"
      :error-messages="errorsOf('reason')"
    />
  </FormDialog>
</template>
