<script setup lang="ts">
import { settingUp, START_PROTOCOLS, type SettingUp, type TubPlace } from '@karyotome/contract';
import { placeWords, PLAN_WORDS } from '@karyotome/words';
import { computed, watch } from 'vue';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSetUpProposal } from '../../stores/queries.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';

/** A clutch goes into its tubs in one act: places proposed, substrate, and how it is started on food. */
const props = defineProps<{ clutchId: string; clutchName: string }>();
const emit = defineEmits<{ close: []; labels: [] }>();
const notices = useNotices();
const { data: proposal } = useSetUpProposal(() => props.clutchId);
const SUBSTRATES = [
  'Plain paper',
  'Paper towel',
  'Coconut husk',
  'Coconut fibre',
  'Cypress mulch',
  'Wood shavings',
];
const PROTOCOLS = START_PROTOCOLS.map((value) => ({ value, title: PLAN_WORDS[value] }));
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `set-up.${props.clutchId}`,
  initial: () => ({
    on: farmToday(),
    substrate: 'Plain paper',
    tubs: {} as Record<string, string | null>,
    withPlan: true,
    protocol: 'frozen-first',
    firstMealOn: null as string | null,
    withLabels: true,
  }),
  schema: settingUp,
  toInput: ({ on, substrate, tubs, withPlan, protocol, firstMealOn }) => ({
    on,
    substrate,
    places: Object.entries(tubs).flatMap(([animalId, tubId]) => (tubId ? [{ animalId, tubId }] : [])),
    plan: withPlan ? { protocol, firstMealOn } : null,
  }),
  send: (order: SettingUp) => api.setUp(props.clutchId, order),
});
watch(
  proposal,
  (view) => {
    if (!view) return;
    // A place that was taken meanwhile, or an animal that has moved, is proposed anew.
    const free = new Set(view.tubs.map(({ tubId }) => tubId));
    draft.tubs = Object.fromEntries(
      view.places.map(({ animalId, tubId }) => {
        const kept = draft.tubs[animalId];
        return [animalId, kept !== undefined && (kept === null || free.has(kept)) ? kept : tubId];
      }),
    );
    draft.firstMealOn ??= view.firstMealOn;
  },
  { immediate: true },
);
/** The room is told where there are several. */
const tubWords = (tub: TubPlace): string =>
  new Set(proposal.value?.tubs.map(({ room }) => room)).size > 1
    ? `${tub.room}, ${placeWords(tub)}`
    : placeWords(tub);
const items = computed(() => [
  { value: null, title: 'stays where it is' },
  ...(proposal.value?.tubs ?? []).map((tub) => ({ value: tub.tubId, title: tubWords(tub) })),
]);
const places = computed(() => proposal.value?.places ?? []);
const isShort = computed(() => places.value.length > (proposal.value?.tubs.length ?? 0));
const placeErrors = (animalId: string): string[] => {
  const at = Object.entries(draft.tubs)
    .filter(([, tub]) => tub)
    .findIndex(([id]) => id === animalId);
  return at < 0 ? [] : errorsOf(`places.${at}.tubId`, `places.${at}`);
};
const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));
async function send(): Promise<void> {
  const count = Object.values(draft.tubs).filter(Boolean).length;
  const { withLabels } = draft;
  const sent = await submit();
  if (!sent) return;
  const { ids } = sent.value;
  notices.say(`Clutch ${props.clutchName} is in its tubs: ${count} set up`, async () => {
    for (const id of ids.toReversed()) await undoing.run(id);
  });
  emit('close');
  if (withLabels) emit('labels');
}
</script>

<template>
  <FormDialog
    :title="`Set up clutch ${clutchName}`"
    submit-text="Move them in"
    :max-width="720"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <p v-if="proposal && places.length === 0" class="wide">Every one of this clutch has its tub.</p>
    <template v-else>
      <DayField v-model="draft.on" label="Day" :errors="errorsOf('on')" />
      <v-combobox
        v-model="draft.substrate"
        label="On what"
        :items="SUBSTRATES"
        :error-messages="errorsOf('substrate')"
      />
      <v-alert v-if="isShort" type="warning" variant="tonal" density="compact" :icon="false" class="wide">
        {{ places.length }} hatchlings, {{ proposal!.tubs.length }} free tubs: add a rack under Racks, or move
        others first.
      </v-alert>
      <div class="wide places">
        <v-select
          v-for="place in places"
          :key="place.animalId"
          v-model="draft.tubs[place.animalId]"
          :label="place.number"
          :items="items"
          density="compact"
          :error-messages="placeErrors(place.animalId)"
        />
      </div>
      <v-checkbox v-model="draft.withPlan" label="Start the feeding plan" hide-details class="wide" />
      <template v-if="draft.withPlan">
        <v-select v-model="draft.protocol" label="How" :items="PROTOCOLS" />
        <DayField
          v-model="draft.firstMealOn"
          label="First meal"
          allows-future
          :errors="errorsOf('plan.firstMealOn')"
        />
      </template>
      <v-checkbox v-model="draft.withLabels" label="Then print their labels" hide-details class="wide" />
      <p class="wide small soft">
        One to a tub, water in a bowl that cannot tip, the lid held down: hatchlings lift it. No food before
        the first shed. Live rodents bite: never leave one alone with a snake.
      </p>
    </template>
  </FormDialog>
</template>

<style scoped>
.places {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 12px;
}
</style>
