<script setup lang="ts">
import { newClutch, validate, type FieldProblem, type PairingView } from '@karyotome/contract';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { localToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useWrite } from '../../stores/useWrite.ts';
import DayField from '../../ui/DayField.vue';

const props = defineProps<{ pairing: PairingView }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const notices = useNotices();
const { draft, discard } = useDraft(`clutch.${props.pairing.id}`, () => ({
  laidOn: localToday() as string | null,
  eggs: null as number | null,
  slugs: 0 as number | null,
  incubationC: 31.4 as number | null,
}));
const local = ref<readonly FieldProblem[]>([]);
const write = useWrite(api.addClutch);
const errorsOf = (field: string): string[] => [
  ...local.value.filter((p) => p.field === field).map((p) => p.message),
  ...write.errorsOf(field),
];
async function submit(): Promise<void> {
  const result = validate(newClutch, {
    pairingId: props.pairing.id,
    ...draft,
    eggs: draft.eggs ?? undefined,
    laidOn: draft.laidOn ?? undefined,
  });
  local.value = result.ok ? [] : result.problems;
  if (!result.ok) return;
  const sent = await write.run(result.value);
  if (!sent) return;
  discard();
  notices.say('Clutch recorded');
  emit('close');
  await router.push(`/bench/${sent.value.id}`);
}
</script>

<template>
  <v-dialog :model-value="true" @update:model-value="emit('close')">
    <v-card
      title="Eggs laid"
      :subtitle="`${pairing.dam.number} × ${pairing.sires.map((s) => s.number).join(' or ')}`"
    >
      <v-card-text>
        <form id="clutch-form" class="fields" novalidate @submit.prevent="submit">
          <DayField v-model="draft.laidOn" label="Laid on" :errors="errorsOf('laidOn')" />
          <v-number-input
            v-model="draft.eggs"
            label="Eggs in all"
            control-variant="hidden"
            :min="0"
            :error-messages="errorsOf('eggs')"
          />
          <v-number-input
            v-model="draft.slugs"
            label="Slugs among them"
            control-variant="hidden"
            :min="0"
            :error-messages="errorsOf('slugs')"
          />
          <v-number-input
            v-model="draft.incubationC"
            label="Incubator, °C"
            :precision="1"
            :step="0.1"
            control-variant="hidden"
            :error-messages="errorsOf('incubationC')"
          />
          <p class="wide small soft">
            Mark the top of each egg and never roll one: the embryo fixes itself to the shell and drowns if
            turned. Eggs that stuck together stay together.
          </p>
          <v-alert
            v-if="write.general(['laidOn', 'eggs', 'slugs', 'incubationC'])"
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
        <v-btn type="submit" form="clutch-form" color="primary" variant="flat" :loading="write.busy.value"
          >Record clutch</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>
