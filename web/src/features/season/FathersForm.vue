<script setup lang="ts">
import { siresChange, type BoardFemale } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { oddsWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import AnimalPicker from '../../ui/AnimalPicker.vue';

/**
 * Who may be the father of her eggs, and how likely each is before any gene speaks: the weights the inference begins with.
 */
const props = defineProps<{ female: BoardFemale }>();
const session = useSession();
const notices = useNotices();
const pairing = props.female.pairing!;
const { draft, discard, submit, errorsOf, general, busy } = useForm({
  key: `fathers.${pairing.id}.${pairing.version}`,
  initial: () => ({
    sires: pairing.sires.map(({ id, number, weight, stored }) => ({
      id,
      number,
      // More digits than anybody knows would only fill the field.
      weight: Number(weight.toPrecision(3)),
      stored,
    })),
    addedId: null as string | null,
  }),
  schema: siresChange,
  toInput: ({ sires }) => ({
    sires: sires.map(({ id, weight, stored }) => ({ animalId: id, weight, stored })),
  }),
  send: (input) => api.changeSires(pairing.id, input, pairing.version),
});
const total = computed(() => draft.sires.reduce((sum, { weight }) => sum + (weight || 0), 0));
function add({ id, number }: { id: string; number: string }): void {
  if (!draft.sires.some((sire) => sire.id === id))
    draft.sires.push({ id, number, weight: 0.02, stored: true });
  draft.addedId = null;
}
async function save(): Promise<void> {
  if (await submit()) notices.say('The possible fathers are saved');
}
</script>

<template>
  <section>
    <h3>Possible fathers</h3>
    <p class="small soft">
      Before any gene speaks. A mate of an earlier season counts by stored sperm: its share comes from your
      rules, and is yours to change here.
    </p>
    <form class="fathers" novalidate @submit.prevent="save">
      <div v-for="(sire, index) in draft.sires" :key="sire.id" class="father">
        <span
          ><strong>{{ sire.number }}</strong>
          <span v-if="sire.stored" class="small soft">{{ ' stored sperm' }}</span></span
        >
        <v-number-input
          v-model="sire.weight"
          :label="`Weight of ${sire.number}`"
          control-variant="hidden"
          density="compact"
          :min="0"
          :step="0.1"
          :precision="null"
          :disabled="!session.mayBreed"
          :error-messages="errorsOf(`sires.${index}.weight`)"
        />
        <span class="num">{{ total > 0 ? oddsWords((sire.weight || 0) / total) : '' }}</span>
        <v-btn
          v-if="session.mayBreed"
          size="small"
          variant="text"
          :disabled="draft.sires.length === 1"
          @click="draft.sires.splice(index, 1)"
          >Leave out</v-btn
        >
      </div>
      <template v-if="session.mayBreed">
        <AnimalPicker v-model="draft.addedId" label="Another possible father" sex="male" @picked="add" />
        <v-alert v-if="general()" type="error" variant="tonal" :icon="false" role="alert">{{
          general()
        }}</v-alert>
        <div class="row">
          <v-btn type="submit" variant="outlined" :loading="busy">Save the fathers</v-btn>
          <v-btn variant="text" @click="discard">As it was</v-btn>
        </div>
      </template>
    </form>
  </section>
</template>

<style scoped>
.fathers {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
.father {
  display: grid;
  grid-template-columns: 1fr 150px 64px auto;
  align-items: center;
  gap: 4px 10px;
}
@media (width < 600px) {
  .father {
    grid-template-columns: 1fr 110px 60px;
  }
}
</style>
