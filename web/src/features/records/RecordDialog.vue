<script setup lang="ts">
import { REFUSAL_STEPS } from '@karyotome/core';
import { CARE_WORDS, KIND_WORDS, PLAN_WORDS, soakAdvice } from '@karyotome/words';
import { computed } from 'vue';
import { reader } from '../../format/reader.ts';
import DayField from '../../ui/DayField.vue';
import FormDialog from '../../ui/FormDialog.vue';
import OwnGenesField from '../../ui/OwnGenesField.vue';
import TubField from './TubField.vue';
import HealthFields from './HealthFields.vue';
import OriginFields from './OriginFields.vue';
import { isOfHealth, isOfOrigin } from './record-groups.ts';
import OwnWayFields from './OwnWayFields.vue';
import { sizesOf } from './record-defaults.ts';
import { useRecordForm, type RecordSubject } from './useRecordForm.ts';
import MassField from '../../ui/MassField.vue';

/** One dated record: the form of its kind. */
const props = defineProps<{ subject: RecordSubject }>();
const emit = defineEmits<{ close: [] }>();
const { draft, submit, discard, busy, errorsOf, general } = useRecordForm(props.subject);
const record = computed(() => draft.record);
const SURE = [
  { value: 'certain', title: 'Certain' },
  { value: 'probable', title: 'Probable' },
  { value: 'possible', title: 'Possible' },
];
const METHODS = [
  { value: 'popped', title: 'Popped' },
  { value: 'probed', title: 'Probed' },
  { value: 'bred', title: 'Has bred' },
  { value: 'genes', title: 'Sex-linked gene' },
  { value: 'stated', title: 'Stated by somebody' },
];
const CARE = Object.entries(CARE_WORDS).map(([value, title]) => ({ value, title }));
const LIGHTS = [
  { value: 'light', title: 'Lights on' },
  { value: 'dim', title: 'Dim' },
  { value: 'dark', title: 'Dark' },
];
/** The steps a refusing animal is offered by; of a plan of the keeper's own they show by its key. */
const steps = REFUSAL_STEPS.map(({ key, name }) => ({ value: key, title: name }));
const PROTOCOLS = Object.entries(PLAN_WORDS).map(([value, title]) => ({ value, title }));
const STAGES = [
  { value: 'dull', title: 'Dull, pink belly' },
  { value: 'blue', title: 'Blue eyes' },
  { value: 'clear', title: 'Clear again' },
  { value: 'shed', title: 'Has shed' },
];
async function send(): Promise<void> {
  if (await submit()) emit('close');
}
</script>

<template>
  <FormDialog
    :title="`${subject.correcting ? 'Correct: ' : ''}${KIND_WORDS[subject.kind]}`"
    :subtitle="subject.number"
    submit-text="Record"
    :busy="busy"
    :general="general"
    @close="emit('close')"
    @discard="discard"
    @submit="send"
  >
    <template v-if="record.kind === 'weight'">
      <MassField v-model="record.body.massG" label="Weight" :error-messages="errorsOf('body.massG')" />
    </template>
    <template v-else-if="record.kind === 'feeding'">
      <v-btn-toggle v-model="record.body.taken" class="wide" aria-label="Taken or refused">
        <v-btn :value="true">Taken</v-btn>
        <v-btn :value="false">Refused</v-btn>
      </v-btn-toggle>
      <v-select
        v-model="record.body.species"
        label="Prey"
        :items="['rat', 'mouse', 'other']"
        :error-messages="errorsOf('body.species')"
      />
      <v-select
        v-model="record.body.size"
        label="Size"
        :items="sizesOf(record.body.species)"
        :error-messages="errorsOf('body.size')"
      />
      <v-select
        v-model="record.body.state"
        label="State"
        :items="[
          { value: 'frozen-thawed', title: 'Frozen-thawed' },
          { value: 'fresh-killed', title: 'Freshly killed' },
          { value: 'live', title: 'Live' },
        ]"
      />
      <MassField
        v-model="record.body.preyG"
        label="Prey weight, if weighed"
        clearable
        :error-messages="errorsOf('body.preyG')"
      />
      <v-select
        v-model="record.body.step"
        label="Step of its plan"
        :items="steps"
        clearable
        :error-messages="errorsOf('body.step')"
      />
      <v-select v-model="record.body.light" label="Light" :items="LIGHTS" clearable />
      <p v-if="record.body.state === 'live'" class="wide small soft">
        Live adult rodents are never left alone with a snake: they bite back.
      </p>
    </template>
    <template v-else-if="record.kind === 'shed'">
      <v-btn-toggle v-model="record.body.stage" class="wide stages" aria-label="Shed sign">
        <v-btn v-for="stage in STAGES" :key="stage.value" :value="stage.value">{{ stage.title }}</v-btn>
      </v-btn-toggle>
      <template v-if="record.body.stage === 'shed'">
        <v-checkbox v-model="record.body.complete" label="In one piece" hide-details density="compact" />
        <v-checkbox
          v-model="record.body.eyeCaps"
          label="Both eye caps on it"
          hide-details
          density="compact"
        />
        <p v-if="record.body.complete === false || record.body.eyeCaps === false" class="wide small">
          {{ soakAdvice(reader()) }}
        </p>
      </template>
    </template>
    <template v-else-if="record.kind === 'sex'">
      <div class="wide">
        <v-btn-toggle v-model="record.body.sex" aria-label="Sex">
          <v-btn value="female">♀ Female</v-btn>
          <v-btn value="male">♂ Male</v-btn>
        </v-btn-toggle>
        <p v-for="error in errorsOf('body.sex')" :key="error" class="small error">Sex {{ error }}</p>
      </div>
      <v-select v-model="record.body.method" label="Method" :items="METHODS" />
      <v-select v-model="record.body.sure" label="How sure" :items="SURE" />
      <v-text-field v-model="record.body.by" label="By whom" :error-messages="errorsOf('body.by')" />
      <p class="wide small soft">
        Inexperienced hands hurt animals: sexing is taught hand to hand. A female is an absence, so she is
        checked again later.
      </p>
    </template>
    <template v-else-if="record.kind === 'identification'">
      <OwnGenesField
        v-model="record.body.genes"
        :errors="errorsOf('body.genes')"
        hint="What shows; in brackets what may be there unseen"
      />
      <v-select v-model="record.body.sure" label="How sure" :items="SURE" />
      <v-text-field v-model="record.body.by" label="By whom" :error-messages="errorsOf('body.by')" />
    </template>
    <template v-else-if="record.kind === 'move'">
      <TubField v-model="record.body.toTubId" :errors="errorsOf('body.toTubId')" class="wide" />
      <v-text-field
        v-model="record.body.reason"
        label="Reason"
        class="wide"
        :error-messages="errorsOf('body.reason')"
      />
    </template>
    <template v-else-if="record.kind === 'plan'">
      <v-select v-model="record.body.protocol" label="Start" :items="PROTOCOLS" />
      <DayField
        v-model="record.body.firstMealOn"
        label="First meal"
        allows-future
        :errors="errorsOf('body.firstMealOn')"
      />
    </template>
    <v-select v-else-if="record.kind === 'care'" v-model="record.body.act" label="What" :items="CARE" />
    <OwnWayFields v-else-if="record.kind === 'own-way'" v-model="record.body" :errors-of="errorsOf" />
    <HealthFields v-else-if="isOfHealth(draft.record)" v-model="draft.record" :errors-of="errorsOf" />
    <OriginFields v-else-if="isOfOrigin(draft.record)" v-model="draft.record" :errors-of="errorsOf" />
    <v-textarea
      v-else-if="record.kind === 'note'"
      v-model="record.body.text"
      label="Private note"
      rows="4"
      class="wide"
      :error-messages="errorsOf('body.text')"
    />
    <DayField v-model="record.on" label="Day" :errors="errorsOf('on')" />
    <v-text-field
      v-if="record.kind !== 'note'"
      v-model="record.note"
      label="Private note, if any"
      :error-messages="errorsOf('note')"
    />
    <v-text-field
      v-if="subject.correcting"
      v-model="draft.reason"
      label="Why it is corrected"
      class="wide"
      :error-messages="errorsOf('reason')"
    />
  </FormDialog>
</template>

<style scoped>
.stages {
  flex-wrap: wrap;
  height: auto;
}
.error {
  margin: 4px 4px 0;
  color: rgb(var(--v-theme-error));
}
</style>
