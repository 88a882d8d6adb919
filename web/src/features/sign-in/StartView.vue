<script setup lang="ts">
import { NUMBER_PATTERNS, type NumberPattern } from '@karyotome/core';
import { NUMBER_PATTERN_WORDS } from '@karyotome/words';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { deviceZone } from '../../format/farm-day.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import NewPasswordField from '../../ui/NewPasswordField.vue';
import RefusalAlert from '../../ui/RefusalAlert.vue';
import UnitFields from '../settings/UnitFields.vue';
import { zoneNames } from '../settings/zones.ts';
import OpenCard from './OpenCard.vue';
import OpenHead from './OpenHead.vue';

/** The first start: makes the first owner and their farm. The code stands behind the #, which no server is told. */
const session = useSession();
const router = useRouter();
const code = ref(window.location.hash.slice(1));
const isLinked = code.value !== '';
const name = ref('');
const email = ref('');
const password = ref('');
const farm = ref({
  name: '',
  timeZone: deviceZone(),
  massUnit: 'g' as 'g' | 'oz',
  temperatureUnit: 'C' as 'C' | 'F',
  currency: 'EUR',
  numberPattern: 'season-clutch-hatchling' as NumberPattern,
});
const zones = zoneNames(farm.value.timeZone);
const currencies = Intl.supportedValuesOf('currency');
const { run, busy, errorsOf, general } = useWrite(session.start);
const SHOWN = [
  'code',
  'name',
  'email',
  'password',
  'farm.name',
  'farm.timeZone',
  'farm.currency',
  'farm.numberPattern',
];
void api.firstStart().then(
  ({ isOpen }) => void (isOpen || router.replace('/sign-in')),
  () => undefined,
);

async function submit(): Promise<void> {
  const done = await run({
    code: code.value,
    name: name.value.trim(),
    email: email.value.trim(),
    password: password.value,
    farm: { ...farm.value, name: farm.value.name.trim() },
  });
  if (done) await router.replace('/today');
}
</script>

<template>
  <OpenCard>
    <OpenHead title="Welcome" text="Make the first owner, and the farm. All of it can be changed later." />
    <form class="stack" novalidate @submit.prevent="submit">
      <v-text-field
        v-if="!isLinked || errorsOf('code').length > 0 || general(SHOWN)"
        v-model="code"
        label="Code"
        hint="The server wrote it when it started."
        persistent-hint
        autocomplete="off"
        :error-messages="errorsOf('code')"
      />
      <h2>You</h2>
      <v-text-field v-model="name" label="Your name" autocomplete="name" :error-messages="errorsOf('name')" />
      <v-text-field
        v-model="email"
        label="E-mail"
        type="email"
        autocomplete="username"
        :error-messages="errorsOf('email')"
      />
      <NewPasswordField v-model="password" label="Password" :errors="errorsOf('password')" />
      <h2>The farm</h2>
      <v-text-field
        v-model="farm.name"
        label="Its name, as buyers see it"
        :error-messages="errorsOf('farm.name')"
      />
      <v-autocomplete
        v-model="farm.timeZone"
        label="Time zone"
        :items="zones"
        :error-messages="errorsOf('farm.timeZone')"
      />
      <UnitFields v-model:mass-unit="farm.massUnit" v-model:temperature-unit="farm.temperatureUnit" />
      <v-autocomplete
        v-model="farm.currency"
        label="Currency of prices"
        :items="currencies"
        :error-messages="errorsOf('farm.currency')"
      />
      <v-select
        v-model="farm.numberPattern"
        label="How hatchlings are numbered"
        :items="NUMBER_PATTERNS.map((value) => ({ value, title: NUMBER_PATTERN_WORDS[value] }))"
        :error-messages="errorsOf('farm.numberPattern')"
      />
      <RefusalAlert :text="general(SHOWN)" />
      <v-btn type="submit" color="primary" size="large" :loading="busy">Begin</v-btn>
    </form>
  </OpenCard>
</template>
