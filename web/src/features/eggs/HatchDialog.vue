<script setup lang="ts">
import { hatching, type ClutchView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { filled, useForm } from '../../stores/useForm.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** Turns the eggs that hatched into numbered hatchlings, in one act. */
const props = defineProps<{
  clutch: Pick<ClutchView, 'id' | 'name' | 'version' | 'nextNumbers'>;
  young: number;
  /** The eggs were followed one by one: each hatchling is then known by its egg and its own day. */
  followed: boolean;
  /** Good eggs that are neither out nor over. */
  waiting: number;
}>();
const emit = defineEmits<{ close: []; done: [] }>();
const session = useSession();
const notices = useNotices();
const isFree = computed(() => session.settings?.numberPattern === 'free');
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `hatch.${props.clutch.id}`,
  initial: () => ({
    hatchedOn: farmToday() as string | null,
    hatched: props.young as number | null,
    numbers: '',
  }),
  schema: hatching,
  toInput: ({ numbers, ...values }) => ({
    ...filled(values),
    ...(isFree.value ? { numbers: linesOf(numbers) } : {}),
  }),
  send: (input) => api.hatch(props.clutch.id, input, props.clutch.version),
});
const proposed = computed(() => props.clutch.nextNumbers.slice(0, draft.hatched ?? 0));
const linesOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
async function send(): Promise<void> {
  const sent = await submit();
  if (!sent) return;
  const { numbers } = sent.value;
  notices.say(
    numbers.length === 1
      ? `1 hatchling numbered ${numbers[0]}`
      : `${numbers.length} hatchlings numbered ${numbers[0]} to ${numbers.at(-1)}`,
  );
  emit('done');
}
</script>

<template>
  <FormDialog
    :title="`Clutch ${clutch.name} hatched`"
    submit-text="Number them"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <DayField v-model="draft.hatchedOn" label="Hatched on" :errors="errorsOf('hatchedOn')" />
    <v-number-input
      v-model="draft.hatched"
      label="How many left the egg"
      control-variant="hidden"
      :min="0"
      :error-messages="errorsOf('hatched')"
    />
    <v-textarea
      v-if="isFree"
      v-model="draft.numbers"
      label="Numbers, one in a line"
      class="wide"
      rows="6"
      :error-messages="errorsOf('numbers')"
    />
    <p v-else class="wide">
      {{ proposed.length > 1 ? 'Their numbers' : 'Its number' }}: <strong>{{ proposed[0] }}</strong><template
        v-if="proposed.length > 1"
      >
        to <strong>{{ proposed.at(-1) }}</strong></template
      >
      <span class="soft small">{{ ' ' }}(numbers are never reused; the pattern is under Settings)</span>
    </p>
    <v-alert v-if="followed && waiting > 0" type="warning" variant="tonal" :icon="false" class="wide">
      {{ waiting === 1 ? '1 egg is' : `${waiting} eggs are` }} not out yet. Numbering closes the clutch: wait
      until every egg is out or over, unless you mean to leave them.
    </v-alert>
    <p v-if="followed" class="wide small">
      They are numbered in the order in which they left their eggs, each with its own day.
    </p>
    <p class="wide small soft">
      Twins count as two. Keep the clutch together on damp paper until the first shed, and do not feed before
      it: they live on yolk.
    </p>
  </FormDialog>
</template>
