<script setup lang="ts">
import { HEALTH_SIGNS, QUARANTINE_REASONS } from '@karyotome/core';
import {
  capital,
  NEVER_DOUBLE,
  QUARANTINE_PRACTICE,
  QUARANTINE_REASON_WORDS,
  SIGN_WORDS,
  SIGNS_FOR_VET,
} from '@karyotome/words';
import DayField from '../../ui/DayField.vue';
import type { HealthRecord } from './record-groups.ts';

/** What was seen of an animal's health, what a veterinarian said, and what is done about it. */
defineProps<{ errorsOf: (...fields: string[]) => string[] }>();
const record = defineModel<HealthRecord>({ required: true });
const reasons = QUARANTINE_REASONS.map((value) => ({
  value,
  title: capital(QUARANTINE_REASON_WORDS[value]),
}));
</script>

<template>
  <template v-if="record.kind === 'health-check'">
    <v-chip-group v-model="record.body.signs" multiple column filter class="wide" aria-label="Signs">
      <v-chip v-for="sign in HEALTH_SIGNS" :key="sign" :value="sign" label>{{
        capital(SIGN_WORDS[sign])
      }}</v-chip>
    </v-chip-group>
    <v-text-field
      v-model="record.body.words"
      label="In words, if it is none of these"
      class="wide"
      :error-messages="errorsOf('body.words')"
    />
    <p class="wide small soft">Nothing chosen and no words: nothing was found. {{ SIGNS_FOR_VET }}</p>
  </template>
  <template v-else-if="record.kind === 'vet-visit'">
    <v-text-field
      v-model="record.body.veterinarian"
      label="Veterinarian"
      :error-messages="errorsOf('body.veterinarian')"
    />
    <DayField
      v-model="record.body.nextOn!"
      label="Next visit, if there is one"
      allows-future
      :errors="errorsOf('body.nextOn')"
    />
    <v-textarea
      v-model="record.body.words"
      label="What the veterinarian found and said"
      rows="4"
      class="wide"
      :error-messages="errorsOf('body.words')"
    />
  </template>
  <template v-else-if="record.kind === 'treatment'">
    <v-text-field
      v-model="record.body.what"
      label="What is given, or done"
      :error-messages="errorsOf('body.what')"
    />
    <v-text-field
      v-model="record.body.dose"
      label="Dose, as ordered"
      :error-messages="errorsOf('body.dose')"
    />
    <v-text-field
      v-model="record.body.orderedBy"
      label="Ordered by"
      :error-messages="errorsOf('body.orderedBy')"
    />
    <DayField v-model="record.body.from" label="First dose" allows-future :errors="errorsOf('body.from')" />
    <v-number-input
      v-model="record.body.everyDays"
      label="Every … days"
      control-variant="hidden"
      :error-messages="errorsOf('body.everyDays')"
    />
    <v-number-input
      v-model="record.body.timesADay"
      label="Times on such a day"
      control-variant="hidden"
      :error-messages="errorsOf('body.timesADay')"
    />
    <v-number-input
      v-model="record.body.doses"
      label="Doses in all"
      hint="Empty: until it is ended"
      persistent-hint
      control-variant="hidden"
      clearable
      :error-messages="errorsOf('body.doses')"
    />
    <v-number-input
      v-model="record.body.weighEveryDays"
      label="Weighed every … days meanwhile"
      control-variant="hidden"
      clearable
      :error-messages="errorsOf('body.weighEveryDays')"
    />
    <p class="wide small soft">
      Written down as a veterinarian ordered it: nothing here is proposed. {{ NEVER_DOUBLE }}
    </p>
  </template>
  <template v-else-if="record.kind === 'dose'">
    <v-btn-toggle v-model="record.body.isGiven" class="wide" aria-label="Given or left out">
      <v-btn :value="true">Given</v-btn>
      <v-btn :value="false">Left out</v-btn>
    </v-btn-toggle>
    <p class="wide small soft">Dose {{ record.body.ordinal }}. {{ NEVER_DOUBLE }}</p>
  </template>
  <v-text-field
    v-else-if="record.kind === 'treatment-end'"
    v-model="record.body.reason"
    label="Why it ends"
    class="wide"
    :error-messages="errorsOf('body.reason')"
  />
  <template v-else-if="record.kind === 'quarantine'">
    <DayField v-model="record.body.until" label="Until" allows-future :errors="errorsOf('body.until')" />
    <v-select v-model="record.body.reason" label="Why" :items="reasons" />
    <p class="wide small soft">{{ QUARANTINE_PRACTICE }} No day: it is not kept apart any longer.</p>
  </template>
  <template v-else-if="record.kind === 'post-mortem'">
    <v-text-field v-model="record.body.by" label="Examined by" :error-messages="errorsOf('body.by')" />
    <v-textarea
      v-model="record.body.words"
      label="What was found"
      rows="4"
      class="wide"
      :error-messages="errorsOf('body.words')"
    />
  </template>
</template>
