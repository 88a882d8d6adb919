<script setup lang="ts">
import { hatching, validate, type BenchView, type FieldProblem } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { localToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';

/** Turns the eggs that hatched into numbered hatchlings, in one act. */
const props = defineProps<{ bench: BenchView }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notices = useNotices();
const { draft, discard } = useDraft(`hatch.${props.bench.clutch.id}`, () => ({
  hatchedOn: localToday() as string | null,
  hatched: (props.bench.clutch.eggs - (props.bench.clutch.slugs ?? 0)) as number | null,
  numbers: '',
}));
const isFree = computed(() => session.settings?.numberPattern === 'free');
const proposed = computed(() => props.bench.nextNumbers.slice(0, draft.hatched ?? 0));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite(api.hatch);
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field || p.field.startsWith(`${field}.`)).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(): Promise<void> {
  const numbers = draft.numbers
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  const result = validate(hatching, {
    hatchedOn: draft.hatchedOn ?? undefined,
    hatched: draft.hatched ?? undefined,
    ...(isFree.value ? { numbers } : {}),
  });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok) return;
  const sent = await write.run(props.bench.clutch.id, result.value, props.bench.clutch.version);
  if (!sent) return;
  discard();
  const { numbers: given } = sent.value;
  notices.say(`${given.length} hatchlings numbered ${given[0]} to ${given.at(-1)}`);
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" @update:model-value="emit('close')">
    <v-card :title="`Clutch ${bench.clutch.name} hatched`">
      <v-card-text>
        <form id="hatch-form" class="fields" novalidate @submit.prevent="submit">
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
            Their numbers: <strong>{{ proposed[0] }}</strong> to <strong>{{ proposed.at(-1) }}</strong>
            <span class="soft small">(numbers are never reused; the pattern is under Settings)</span>
          </p>
          <p class="wide small soft">
            Twins count as two. Keep the clutch together on damp paper until the first shed, and do not feed
            before it: they live on yolk.
          </p>
          <v-alert
            v-if="write.general(['hatchedOn', 'hatched', 'numbers'])"
            type="error"
            variant="tonal"
            :icon="false"
            class="wide"
            role="alert"
            >{{ write.message.value }}</v-alert
          >
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="(discard(), emit('close'))">Discard</v-btn>
        <v-spacer />
        <v-btn type="submit" form="hatch-form" color="primary" variant="flat" :loading="write.busy.value"
          >Number them</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
