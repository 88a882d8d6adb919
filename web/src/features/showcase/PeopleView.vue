<script setup lang="ts">
import type { PersonView } from '@karyotome/contract';
import { STATUS_EVENT_WORDS } from '@karyotome/words';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { dayWords } from '../../format/format.ts';
import { usePersons } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import PersonDialog from './PersonDialog.vue';
import ShowcaseNav from './ShowcaseNav.vue';

/** The address book: buyers, and those who wait. */
const { data, status, error, refetch } = usePersons();
const editing = ref<{ person: PersonView | null } | null>(null);
const known = computed(() => (data.value ?? []).filter(({ erasedAt }) => erasedAt === null));
const route = useRoute();
// The one that the address names is opened, once people are read.
watch(
  () => known.value.find(({ id }) => id === route.query['person']),
  (person) => {
    if (person) editing.value = { person };
  },
  { immediate: true },
);
const erased = computed(() => (data.value ?? []).length - known.value.length);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>People</h1>
      <ShowcaseNav />
      <TableLink list="persons" />
      <v-btn color="primary" @click="editing = { person: null }">New person</v-btn>
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="known.length === 0"
      empty-title="Nobody yet"
      empty-text="Buyers and those who wait for an animal. They are asked before they are written to, and erased when they wish."
      @retry="refetch()"
    >
      <template #first
        ><v-btn color="primary" @click="editing = { person: null }">New person</v-btn></template
      >
      <v-card>
        <button
          v-for="person in known"
          :key="person.id"
          type="button"
          class="line"
          @click="editing = { person }"
        >
          <strong>{{ person.name }}</strong>
          <span class="small">{{ [person.email, person.phone].filter(Boolean).join(', ') }}</span>
          <span class="small soft">{{
            person.consentOn ? `agreed to mail on ${dayWords(person.consentOn)}` : 'has not agreed to mail'
          }}</span>
          <span class="small animals">
            <span v-for="animal in person.animals" :key="animal.id + animal.kind"
              >{{ animal.number }}, {{ STATUS_EVENT_WORDS[animal.kind].toLowerCase() }}
              {{ dayWords(animal.on) }}</span
            >
          </span>
        </button>
      </v-card>
    </StateBlock>
    <p v-if="erased" class="small soft mt-3">
      {{ erased === 1 ? 'One person was' : `${erased} people were` }} erased: their animals keep their
      history.
    </p>
    <PersonDialog v-if="editing" :person="editing.person" @close="editing = null" />
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(140px, 1fr) minmax(180px, 1.4fr) minmax(160px, 1fr) minmax(160px, 1.4fr);
  gap: 4px 16px;
  align-items: center;
  width: 100%;
  min-height: 52px;
  padding: 8px 16px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.line + .line {
  border-top: 1px solid var(--hair);
}
.line:hover {
  background: rgb(var(--v-theme-surface-light));
}
.animals {
  display: grid;
}
@media (width < 800px) {
  .line {
    grid-template-columns: 1fr;
  }
}
</style>
