<script setup lang="ts">
import {
  HISTORY_SUBJECTS,
  type HistoryFilter,
  type HistoryLine,
  type HistorySubject,
} from '@karyotome/contract';
import { capital, HISTORY_SUBJECT_WORDS, historyWords } from '@karyotome/words';
import { refDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { deviceWords } from '../../format/device-words.ts';
import { countWords, momentWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useHistory, useMembers } from '../../stores/queries.ts';
import DayField from '../../ui/DayField.vue';
import MoreButton from '../../ui/MoreButton.vue';
import StateBlock from '../../ui/StateBlock.vue';

/** Every write: who, when, on what, what was and what is. Asked for by an animal, a clutch or a rack, it shows theirs alone. */
const route = useRoute();
const router = useRouter();
const { data: members } = useMembers();
const search = ref<string | null>('');
// Each key typed would look through the whole history.
const sought = refDebounced(search, 400);
const subject = ref<HistorySubject | null>(null);
const accountId = ref<string | null>(null);
const from = ref<string | null>(null);
const to = ref<string | null>(null);

const PLACES: readonly HistoryFilter[] = ['animalId', 'clutchId', 'rackId'];
const place = computed(() => {
  const given = PLACES.flatMap((name) =>
    typeof route.query[name] === 'string' ? [[name, route.query[name]] as const] : [],
  );
  return Object.fromEntries(given) as Readonly<Record<string, string>>;
});
const asked = computed(() => ({
  ...place.value,
  ...(subject.value ? { subject: subject.value } : {}),
  ...(accountId.value ? { accountId: accountId.value } : {}),
  ...(from.value ? { from: from.value } : {}),
  ...(to.value ? { to: to.value } : {}),
  ...(sought.value?.trim() ? { search: sought.value.trim() } : {}),
}));
const { data: parts, status, error, refetch, hasMore, more, asyncStatus } = useHistory(asked);
const lines = computed(() =>
  (parts.value ?? []).flatMap(({ items }) =>
    items.map((line) => ({ ...line, told: historyWords(line, reader(), momentWords) })),
  ),
);
const total = computed(() => parts.value?.[0]?.total ?? 0);

const isNarrowed = computed(() => Object.keys(place.value).length > 0);
const subjects = HISTORY_SUBJECTS.map((value) => ({
  value,
  title: capital(HISTORY_SUBJECT_WORDS[value]),
})).toSorted((a, b) => a.title.localeCompare(b.title));
function by({ by: name, program, device }: HistoryLine): string {
  if (name === null) return 'by itself, or a visitor';
  if (program !== null) return `${name}, by ${program}`;
  const on = deviceWords(device);
  return on ? `${name}, ${on}` : name;
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>History</h1>
      <v-btn v-if="isNarrowed" variant="outlined" @click="router.replace('/settings/history')"
        >Show all</v-btn
      >
      <v-btn variant="text" :href="api.historyTableUrl(asked)" download>Download table</v-btn>
    </div>
    <p class="soft intro">
      Everything that was entered, changed and removed, and who signed in. Nobody can change or delete it.
      Data about buyers is not copied here, so that it can be erased.
    </p>
    <div class="filters">
      <v-text-field
        v-model="search"
        label="Find by number, rack or value"
        density="compact"
        clearable
        hide-details
      />
      <v-autocomplete
        v-model="subject"
        :items="subjects"
        label="What"
        density="compact"
        clearable
        hide-details
      />
      <v-select
        v-model="accountId"
        :items="(members ?? []).map(({ id, name }) => ({ value: id, title: name }))"
        label="Who"
        density="compact"
        clearable
        hide-details
      />
      <DayField v-model="from" label="From" density="compact" hide-details />
      <DayField v-model="to" label="To" density="compact" hide-details />
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="lines.length === 0"
      empty-title="Nothing found"
      empty-text="Nothing was written that fits."
      @retry="refetch()"
    >
      <p class="small soft">{{ countWords(total, 'line', 'lines') }}, the latest first</p>
      <v-card>
        <ul class="lines">
          <li v-for="line in lines" :key="line.id">
            <span class="small soft">{{ momentWords(line.at) }}</span>
            <div class="what">
              <span>
                {{ line.told.what }}
                <router-link v-if="line.animal?.isHere" :to="`/animals/${line.animal.id}`">{{
                  line.animal.number
                }}</router-link>
                <span v-else-if="line.animal">{{ line.animal.number }}</span>
                <span v-if="line.clutch">clutch {{ line.clutch.name }}</span>
                <span v-if="line.rack">{{ line.rack.name }}</span>
              </span>
              <div class="changes small">
                <span v-for="change in line.told.changes" :key="change.field" class="change">
                  <span class="soft">{{ change.field }}</span>
                  <template v-if="line.action === 'changed'">
                    <s v-if="change.was" class="soft">{{ change.was }}</s>
                    <span v-if="change.becomes">{{ change.becomes }}</span>
                    <span v-else-if="change.was" class="soft">nothing</span>
                  </template>
                  <span v-else>{{ change.becomes || change.was }}</span>
                </span>
              </div>
            </div>
            <span class="small soft">{{ by(line) }}</span>
          </li>
        </ul>
      </v-card>
      <MoreButton v-if="hasMore" :busy="asyncStatus === 'loading'" @more="more" />
    </StateBlock>
  </div>
</template>

<style scoped>
.intro {
  max-width: 70ch;
  margin-bottom: 12px;
}
.filters {
  display: grid;
  grid-template-columns: minmax(160px, 2fr) repeat(4, minmax(130px, 1fr));
  gap: 8px;
  margin-bottom: 12px;
}
.lines {
  padding: 0;
  margin: 0;
  list-style: none;
}
.lines li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 220px;
  gap: 16px;
  padding: 10px 16px;
  border-bottom: 1px solid rgb(var(--v-theme-surface-variant));
}
.what {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.changes {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
}
.change {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  min-width: 0;
  overflow-wrap: anywhere;
}
@media (width < 800px) {
  .filters {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .filters > :first-child {
    grid-column: 1 / -1;
  }
  .lines li {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
