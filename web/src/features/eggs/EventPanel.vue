<script setup lang="ts">
import { EGG_SIGNS, type EggEventKind, type EggSign } from '@karyotome/core';
import { computed, ref } from 'vue';
import { farmToday } from '../../format/format.ts';
import DayField from '../../ui/DayField.vue';
import { eggsWords, SIGN_WORDS } from './egg-words.ts';

/** What is seen of the chosen eggs: at the candling lamp, or when they hatch. */
const props = defineProps<{
  phase: 'check' | 'hatch';
  chosen: ReadonlySet<number>;
  busy: boolean;
  /** Cutting has a caution, and by some schools it is never done. */
  cutWords: string;
  cutCaution: string;
  unpipped: ReadonlySet<number>;
}>();
const emit = defineEmits<{
  note: [kind: EggEventKind, on: string, details: { signs?: EggSign[]; young?: number }];
  choose: [ReadonlySet<number>];
}>();
const on = ref<string | null>(farmToday());
const signs = ref<EggSign[]>([]);
const hasChosen = computed(() => props.chosen.size > 0);
const whom = computed(() =>
  hasChosen.value ? eggsWords([...props.chosen].map((index) => index + 1)) : 'the whole clutch',
);
const dayMissing = computed(() => (on.value === null ? ['is missing'] : []));
function note(kind: EggEventKind, details: { signs?: EggSign[]; young?: number } = {}): void {
  if (on.value === null) return;
  emit('note', kind, on.value, details);
  signs.value = [];
}
</script>

<template>
  <div class="panel">
    <template v-if="phase === 'check'">
      <v-chip-group v-model="signs" multiple column selected-class="on" aria-label="What was seen">
        <v-chip v-for="sign in EGG_SIGNS" :key="sign" :value="sign" label size="large" filter>{{
          SIGN_WORDS[sign]
        }}</v-chip>
      </v-chip-group>
      <div class="row">
        <v-btn
          color="primary"
          variant="flat"
          size="large"
          :loading="busy"
          @click="note('check', { signs })"
          >{{ signs.length === 0 ? `Looked at ${whom}: fine` : `Record for ${whom}` }}</v-btn
        >
        <v-btn variant="outlined" size="large" :disabled="!hasChosen || busy" @click="note('removed')"
          >Removed</v-btn
        >
      </div>
      <p class="small soft">
        Without a chosen egg, the whole clutch was looked at. Mould on one egg alone need not harm its
        neighbours; an egg that collapses early and smells is lost. A dent late on is usual.
      </p>
    </template>
    <template v-else>
      <div class="row">
        <v-btn color="primary" variant="flat" size="large" :disabled="!hasChosen || busy" @click="note('pip')"
          >Pipped</v-btn
        >
        <v-btn variant="outlined" size="large" :disabled="!hasChosen || busy" @click="note('cut')">Cut</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          size="large"
          :disabled="!hasChosen || busy"
          @click="note('out', { young: 1 })"
          >Out</v-btn
        >
        <v-btn
          variant="outlined"
          size="large"
          :disabled="chosen.size !== 1 || busy"
          @click="note('out', { young: 2 })"
          >Out: twins</v-btn
        >
        <v-btn variant="outlined" size="large" :disabled="!hasChosen || busy" @click="note('died')"
          >Died in the egg</v-btn
        >
      </div>
      <div class="row">
        <v-btn variant="text" :disabled="unpipped.size === 0" @click="emit('choose', unpipped)"
          >Choose all unpipped</v-btn
        >
        <v-btn variant="text" :disabled="!hasChosen" @click="emit('choose', new Set())">None</v-btn>
      </div>
      <p class="small">
        <strong>{{ cutWords }}</strong> <span class="soft">{{ cutCaution }}</span>
      </p>
    </template>
    <DayField v-model="on" label="Seen on" class="day" :errors="dayMissing" />
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 12px;
}
.day {
  max-width: 220px;
}
.on {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-on-primary)) !important;
}
</style>
