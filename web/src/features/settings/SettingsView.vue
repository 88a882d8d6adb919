<script setup lang="ts">
import { collectionSettings, type CollectionSettings } from '@karyotome/contract';
import { NUMBER_PATTERNS } from '@karyotome/core';
import { NUMBER_PATTERN_WORDS, ROLE_WORDS } from '@karyotome/words';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { useLadders } from '../../stores/queries.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import BackupCard from './BackupCard.vue';
import CalendarCard from './CalendarCard.vue';
import ExportCard from './ExportCard.vue';
import UnitFields from './UnitFields.vue';
import WebhooksCard from './WebhooksCard.vue';
import { zoneNames } from './zones.ts';

const session = useSession();
const notices = useNotices();
const zones = zoneNames(session.settings?.timeZone);
const zoneHint = computed(() =>
  session.settings?.timeZone
    ? "All days are the farm's, on every device."
    : `All days are the farm's, on every device. Until a zone is chosen, the server's counts: ${session.settings?.farmZone}.`,
);
const { data: ladders } = useLadders();
const { draft, submit, errorsOf, general, busy } = useForm({
  key: `settings.${session.settings?.id}.${session.settings?.version}`,
  initial: (): CollectionSettings => {
    const { name, numberPattern, massUnit, temperatureUnit, ladderId, timeZone } = session.settings!;
    return { name, numberPattern, massUnit, temperatureUnit, ladderId, timeZone: timeZone ?? null };
  },
  schema: collectionSettings,
  toInput: (values) => ({ ...values }),
  send: async (settings) => {
    await api.changeSettings(settings, session.settings!.version);
    await session.refresh();
  },
});
async function send(): Promise<void> {
  if (await submit()) notices.say('Settings saved');
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Settings</h1>
      <v-btn v-if="session.mayManage" variant="outlined" to="/settings/history">History</v-btn>
      <v-btn v-if="session.mayDestroy" variant="outlined" to="/settings/bin">Deleted</v-btn>
      <v-btn v-if="session.mayManage" variant="outlined" to="/settings/people">People</v-btn>
      <v-btn variant="outlined" to="/settings/account">Your account</v-btn>
    </div>
    <form class="form stack" novalidate @submit.prevent="send">
      <v-text-field
        v-model="draft.name"
        label="Name of the collection, as buyers see it"
        :error-messages="errorsOf('name')"
      />
      <v-radio-group
        v-model="draft.numberPattern"
        label="How hatchlings are numbered"
        :error-messages="errorsOf('numberPattern')"
        hide-details="auto"
      >
        <v-radio
          v-for="pattern in NUMBER_PATTERNS"
          :key="pattern"
          :value="pattern"
          :label="NUMBER_PATTERN_WORDS[pattern]"
        />
      </v-radio-group>
      <v-select
        v-model="draft.ladderId"
        label="Ladder for new racks"
        :items="(ladders ?? []).map((ladder) => ({ value: ladder.id, title: ladder.name }))"
        :error-messages="errorsOf('ladderId')"
      />
      <v-autocomplete
        v-model="draft.timeZone"
        label="Time zone of the farm"
        :items="zones"
        :hint="zoneHint"
        persistent-hint
        :error-messages="errorsOf('timeZone')"
      />
      <UnitFields v-model:mass-unit="draft.massUnit" v-model:temperature-unit="draft.temperatureUnit" />
      <v-alert v-if="general()" type="error" variant="tonal" :icon="false" role="alert">{{
        general()
      }}</v-alert>
      <div class="row">
        <v-btn type="submit" color="primary" size="large" :loading="busy">Save</v-btn>
      </div>
    </form>
    <BackupCard v-if="session.mayManage" />
    <ExportCard />
    <WebhooksCard v-if="session.mayManage" />
    <CalendarCard />
    <p class="soft small notes">
      Signed in as {{ session.view?.account.name }} ({{ session.view?.account.email }}),
      {{ session.view ? ROLE_WORDS[session.view.role].name.toLowerCase() : '' }}. Reptiles can carry
      Salmonella: wash hands, and keep thawing prey away from food. Ball pythons are in CITES Appendix II:
      local rules decide on keeping, breeding and selling. Illness is for a veterinarian.
    </p>
  </div>
</template>

<style scoped>
.form {
  max-width: 620px;
}
.notes {
  max-width: 620px;
  margin-top: 32px;
}
</style>
