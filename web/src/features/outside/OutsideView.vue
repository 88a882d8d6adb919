<script setup lang="ts">
import { outsideOpinions, SURENESSES, type OutsideOpinions } from '@karyotome/contract';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../../api/resources.ts';
import { ageWords, sexWords } from '../../format/format.ts';
import { useOutside } from '../../stores/queries.ts';
import { useForm } from '../../stores/useForm.ts';
import GenesField from '../../ui/GenesField.vue';

/** What somebody without an account sees at a one-time address: pictures, and a question. One answer, then it is closed. */
const route = useRoute();
const token = String(route.params['token']);
const isSent = ref(false);
const { data, status, error } = useOutside(token);
interface Answer {
  genes: string | null;
  sure: (typeof SURENESSES)[number];
  note: string;
}
const { draft, submit, errorsOf, general, busy } = useForm({
  key: `outside.${token}`,
  initial: () => ({ by: '', answers: {} as Record<string, Answer> }),
  schema: outsideOpinions,
  toInput: ({ by, answers }): unknown => ({
    by,
    opinions: answered.value.map((animalId) => ({
      animalId,
      ...answers[animalId],
      genes: answers[animalId]!.genes,
    })),
  }),
  send: (answer: OutsideOpinions) => api.answerOutside(token, answer),
});
watch(
  data,
  (view) => {
    for (const { id } of view?.animals ?? []) draft.answers[id] ??= { genes: '', sure: 'probable', note: '' };
  },
  { immediate: true },
);
const answered = computed((): string[] =>
  Object.keys(draft.answers).filter((id) => (draft.answers[id]!.genes ?? '').trim() !== ''),
);
const errorAt = (id: string, field: string): string[] => {
  const at = answered.value.indexOf(id);
  return at < 0 ? [] : errorsOf(`opinions.${at}.${field}`);
};
async function send(): Promise<void> {
  if (await submit()) isSent.value = true;
}
</script>

<template>
  <article class="place page">
    <div v-if="isSent" class="stack">
      <h1>Thank you</h1>
      <p>Your answer is with {{ data?.collection }}. This address is closed now.</p>
    </div>
    <v-progress-linear v-else-if="status === 'pending'" indeterminate aria-label="Loading" />
    <div v-else-if="status === 'error'" class="stack">
      <h1>This address is closed</h1>
      <p>{{ error?.message }}</p>
    </div>
    <form v-else-if="data" class="stack" novalidate @submit.prevent="send">
      <p class="soft">{{ data.collection }} asks</p>
      <h1>What do you see?</h1>
      <p v-if="data.note" class="note">{{ data.note }}</p>
      <p>
        {{ data.animals.length === 1 ? 'A hatchling' : `${data.animals.length} hatchlings` }} of a
        <strong>{{ data.dam }}</strong> female and a <strong>{{ data.sires.join(' or ') }}</strong> male.
        Answer those you have an opinion on. Your name is kept with it.
      </p>
      <details class="small">
        <summary>What this pair can give</summary>
        <p>{{ data.outcomes.join(', ') }}</p>
      </details>
      <v-card v-for="animal in data.animals" :key="animal.id" class="one">
        <div class="pictures">
          <a
            v-for="id in animal.pictureIds"
            :key="id"
            :href="api.outsidePictureUrl(token, id)"
            target="_blank"
            rel="noopener"
            ><img :src="api.outsidePictureUrl(token, id)" :alt="`Picture of ${animal.number}`"
          /></a>
        </div>
        <div v-if="draft.answers[animal.id]" class="fields">
          <h2 class="wide">
            {{ animal.number }}
            <span class="small soft"
              >{{ sexWords(animal.sex)
              }}{{ animal.hatchedOn ? `, ${ageWords(animal.hatchedOn)} old` : '' }}</span
            >
          </h2>
          <GenesField
            v-model="draft.answers[animal.id]!.genes"
            :label="`${animal.number} is, to you`"
            hint="In trade shorthand, for example: Pastel Enchi. Leave it empty to pass."
            :errors="errorAt(animal.id, 'genes')"
          />
          <v-select v-model="draft.answers[animal.id]!.sure" label="How sure" :items="[...SURENESSES]" />
          <v-text-field v-model="draft.answers[animal.id]!.note" label="Why, if you like" />
        </div>
      </v-card>
      <v-text-field v-model="draft.by" label="Your name" class="name" :error-messages="errorsOf('by')" />
      <v-alert v-if="general()" type="error" variant="tonal" :icon="false" role="alert">{{
        general()
      }}</v-alert>
      <p v-for="message in errorsOf('opinions')" :key="message" class="error">
        Say what at least one of them is.
      </p>
      <div><v-btn type="submit" color="primary" :loading="busy">Send my answer</v-btn></div>
    </form>
  </article>
</template>

<style scoped>
.page {
  max-width: 860px;
}
.one {
  display: grid;
  gap: 14px;
  padding: 16px;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 10px;
}
.pictures img {
  width: 100%;
  border-radius: 10px;
}
.note {
  padding: 10px 14px;
  border-left: 3px solid rgb(var(--v-theme-secondary));
}
.name {
  max-width: 360px;
}
.error {
  color: rgb(var(--v-theme-error));
}
summary {
  cursor: pointer;
}
</style>
