<script setup lang="ts">
import type { ProjectSummary } from '@karyotome/contract';
import { mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { countWords, dayWords } from '../../format/format.ts';
import { useProjects } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import StateBlock from '../../ui/StateBlock.vue';
import TableLink from '../../ui/TableLink.vue';
import SeasonNav from '../season/SeasonNav.vue';
import ProjectDialog from './ProjectDialog.vue';

/** All projects: those under way first. */
const { data, status, error, refetch } = useProjects();
const session = useSession();
const router = useRouter();
const adding = ref(false);
const nameOf = computed(() => new Map((data.value ?? []).map(({ id, name }) => [id, name])));
const groups = computed(() =>
  [
    { title: 'Under way', projects: (data.value ?? []).filter(({ endedOn }) => endedOn === null) },
    { title: 'Ended', projects: (data.value ?? []).filter(({ endedOn }) => endedOn !== null) },
  ].filter(({ projects }) => projects.length > 0),
);
const sharedWords = ({ id, shared }: ProjectSummary): string[] =>
  shared.map(({ number, projectIds }) => {
    const others = projectIds.filter((one) => one !== id).map((one) => nameOf.value.get(one));
    return `${number} is wanted by ${others.join(' and ')} too.`;
  });
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>Projects</h1>
      <SeasonNav />
      <TableLink v-if="data?.length" list="projects" />
      <v-btn v-if="session.mayBreed" color="primary" :prepend-icon="mdiPlus" @click="adding = true"
        >New project</v-btn
      >
    </div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="No project yet"
      empty-text="A project says what you want to breed, with which animals and by which route, and keeps what came of it season by season. A route of the planner becomes one with a touch."
      @retry="refetch()"
    >
      <template v-if="session.mayBreed" #first>
        <v-btn color="primary" @click="adding = true">New project</v-btn>
        <v-btn to="/season/planner">To the planner</v-btn>
      </template>
      <section v-for="{ title, projects } in groups" :key="title" class="group">
        <h2>{{ title }}</h2>
        <div class="grid">
          <v-card
            v-for="project in projects"
            :key="project.id"
            :to="`/season/projects/${project.id}`"
            class="project"
          >
            <strong>{{ project.name }}</strong>
            <span v-if="project.targets.join() !== project.name">{{ project.targets.join(', ') }}</span>
            <span class="small soft"
              >{{ countWords(project.animals, 'animal', 'animals') }},
              {{
                project.plan
                  ? `route of ${countWords(project.plan.route.steps.length, 'pairing', 'pairings')}`
                  : 'no route chosen'
              }}, since {{ dayWords(project.startedOn) }}</span
            >
            <span v-for="words in sharedWords(project)" :key="words" class="small shared">{{ words }}</span>
          </v-card>
        </div>
      </section>
    </StateBlock>
    <ProjectDialog
      v-if="adding"
      @close="adding = false"
      @done="(id) => router.push(`/season/projects/${id}`)"
    />
  </div>
</template>

<style scoped>
.group {
  display: grid;
  gap: 8px;
  margin-top: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(320px, 100%), 1fr));
  gap: 12px;
}
.project {
  display: grid;
  align-content: start;
  gap: 4px;
  padding: 14px 16px;
}
.shared {
  color: rgb(var(--v-theme-warning));
  font-weight: 560;
}
</style>
