<script setup lang="ts">
import type { AnimalView, ProjectSummary } from '@karyotome/contract';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useProjects } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';

/** The projects that an animal belongs to, and why. */
const props = defineProps<{ animal: AnimalView }>();
const ProjectAnimalDialog = defineAsyncComponent(() => import('../projects/ProjectAnimalDialog.vue'));
const session = useSession();
const { data } = useProjects();
const into = ref<ProjectSummary | null>(null);
const others = computed(() => {
  const own = new Set(props.animal.projects.map(({ id }) => id));
  return (data.value ?? []).filter(({ id, endedOn }) => endedOn === null && !own.has(id));
});
</script>

<template>
  <v-card v-if="animal.projects.length > 0 || (session.mayBreed && others.length > 0)" class="box">
    <div class="row">
      <h2>Projects</h2>
      <v-spacer />
      <v-menu v-if="session.mayBreed && others.length > 0">
        <template #activator="{ props: activator }">
          <v-btn v-bind="activator" size="small" variant="text">Put into one…</v-btn>
        </template>
        <v-list>
          <v-list-item v-for="one in others" :key="one.id" :title="one.name" @click="into = one" />
        </v-list>
      </v-menu>
    </div>
    <p v-if="animal.projects.length === 0" class="small soft">In none.</p>
    <p v-for="one in animal.projects" :key="one.id">
      <router-link :to="`/season/projects/${one.id}`">{{ one.name }}</router-link><span
        v-if="one.isEnded"
        class="small soft"
        >, ended</span
      >
      <span v-if="one.reason" class="small">{{ `: ${one.reason}` }}</span>
    </p>
    <ProjectAnimalDialog v-if="into" :project="into" :animal-id="animal.id" @close="into = null" />
  </v-card>
</template>
