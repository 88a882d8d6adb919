<script setup lang="ts">
import type { TakeInPreview, Trust } from '@karyotome/contract';
import { reactive, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { fetchHandOver } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FileDrop from '../../ui/FileDrop.vue';
import BreederList from './BreederList.vue';
import { TRUST_ITEMS } from './trust-items.ts';
import TakenList from './TakenList.vue';
import TakeInCard from './TakeInCard.vue';

/** Takes in an animal with its breeder's word, or that word alone. */
const notices = useNotices();
const router = useRouter();
const file = shallowRef<Blob | null>(null);
const previews = shallowRef<readonly TakeInPreview[]>([]);
const address = ref('');
const choice = reactive({ as: 'own' as 'own' | 'outside', trust: 'certain' as Trust });
const reading = useWrite(api.previewTakeIn);
const taking = useWrite(api.takeIn);
const fetching = ref(false);
const fetchProblem = ref<string | null>(null);

async function look(blob: Blob): Promise<void> {
  file.value = blob;
  previews.value = [];
  const read = await reading.run(blob);
  if (!read) return;
  previews.value = read.value;
  const [first] = read.value;
  if (!first) return;
  // An animal of one's own that was sold, or its young elsewhere: its evidence is wanted, not the animal.
  choice.as = first.here?.isOwn || first.relatives.some(({ number }) => number !== null) ? 'outside' : 'own';
  choice.trust = first.breeder.trust;
}
/** The address that a breeder on this server gave: it hands over once, so what came of it is kept until it is taken in. */
async function fetchFrom(): Promise<void> {
  fetchProblem.value = null;
  const path = /\/h\/[\w-]+/.exec(address.value)?.[0];
  if (!path) {
    fetchProblem.value = 'This is no address of a hand-over: it ends in /h/ and letters.';
    return;
  }
  fetching.value = true;
  const blob = await fetchHandOver(path);
  fetching.value = false;
  if (blob) await look(blob);
  else
    fetchProblem.value =
      'Nothing could be fetched at this address here: it was used already, has run out, or is of another server. Open it in the browser and choose the file.';
}
async function take(): Promise<void> {
  const done = await taking.run(file.value!, choice.as, choice.trust);
  if (!done) return;
  const { ids } = done.value;
  notices.say(choice.as === 'own' ? 'Taken in' : 'Its evidence counts from now on');
  previews.value = [];
  file.value = null;
  if (ids.length === 1) await router.push(`/animals/${ids[0]}`);
}
</script>

<template>
  <div class="place page">
    <div class="place-head">
      <h1>Take in</h1>
      <v-btn variant="text" to="/animals">Animals</v-btn>
    </div>
    <p>
      A package that came with an animal brings its records, its ancestors and its breeder’s signed word. A
      statement of another breeder’s animal, a young of one that you sold for example, brings its evidence to
      your own.
    </p>
    <FileDrop
      label="Package (.zip) or statement (.json)"
      accept=".json,.zip,application/json,application/zip"
      :loading="reading.busy.value"
      @file="look"
    >
      <form class="row address" @submit.prevent="fetchFrom">
        <v-text-field
          v-model="address"
          label="Or the address that you were given"
          :error-messages="fetchProblem ?? []"
        />
        <v-btn type="submit" variant="outlined" :loading="fetching">Fetch</v-btn>
      </form>
    </FileDrop>
    <v-alert v-if="reading.message.value" type="error" variant="tonal" :icon="false" role="alert">
      {{ reading.general([]) }}
    </v-alert>
    <TakeInCard v-for="preview in previews" :key="preview.subject.id" :preview="preview" />
    <v-card v-if="previews.some(({ isNew }) => isNew)" class="box">
      <h2>What to take in</h2>
      <v-radio-group v-model="choice.as" hide-details>
        <v-radio value="own" label="The animal came to live here: it enters with its records" />
        <v-radio value="outside" label="Only its evidence: the animal lives elsewhere" />
      </v-radio-group>
      <v-select
        v-model="choice.trust"
        :label="`How far the word of ${previews[0]!.breeder.name} counts`"
        :items="TRUST_ITEMS"
      />
      <v-alert v-if="taking.message.value" type="error" variant="tonal" :icon="false" role="alert">{{
        taking.general([])
      }}</v-alert>
      <div class="row">
        <v-btn color="primary" :loading="taking.busy.value" @click="take">Take in</v-btn>
      </div>
    </v-card>
    <TakenList />
    <BreederList />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 16px;
  max-width: 900px;
}
.box {
  display: grid;
  gap: 12px;
  padding: 18px;
}
.address {
  flex-wrap: nowrap;
  align-items: flex-start;
}
.address .v-btn {
  height: 48px;
}
</style>
