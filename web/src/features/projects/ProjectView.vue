<script setup lang="ts">
import type { ProjectView } from '@karyotome/contract';
import { luckWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../../api/resources.ts';
import { dayWords, farmToday } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { usePlanner, useProject } from '../../stores/queries.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import ConfirmDialog from '../../ui/ConfirmDialog.vue';
import StateBlock from '../../ui/StateBlock.vue';
import { usePlannerWorker } from '../../workers/usePlanner.ts';
import SeasonNav from '../season/SeasonNav.vue';
import ProjectAnimalDialog from './ProjectAnimalDialog.vue';
import ProjectAnimals from './ProjectAnimals.vue';
import ProjectDialog from './ProjectDialog.vue';
import ProjectPlan from './ProjectPlan.vue';
import ProjectSeasons from './ProjectSeasons.vue';

/** One project: what comes next, what came of it so far, and who belongs to it. */
const route = useRoute();
const router = useRouter();
const session = useSession();
const notices = useNotices();
const { data, status, error, refetch } = useProject(() => String(route.params['id']));
const { data: planner } = usePlanner();
const worker = usePlannerWorker(planner);
const editing = ref(false);
const removing = ref(false);
const animal = ref<{ animalId?: string; step?: number } | null>(null);
const ending = useWrite(({ name, targets, note, id, version }: ProjectView, endedOn: string | null) =>
  api.changeProject(id, { name, targets, note, endedOn }, version),
);
const removal = useWrite(api.removeProject);
async function end(project: ProjectView, endedOn: string | null): Promise<void> {
  if (await ending.run(project, endedOn))
    notices.say(`${project.name} ${endedOn === null ? 'goes on' : 'ended'}`);
  else notices.warn(ending.message.value ?? 'It could not be changed');
}
async function remove({ id, name, version }: ProjectView): Promise<void> {
  removing.value = false;
  if (!(await removal.run(id, version)))
    return notices.warn(removal.message.value ?? 'It could not be removed');
  notices.say(`${name} removed`);
  await router.push('/season/projects');
}
const nameOfOther = computed(() => new Map((data.value?.others ?? []).map(({ id, name }) => [id, name])));
const loadOf = computed(() => new Map((planner.value?.animals ?? []).map((one) => [one.id, one.freeLoad])));
/** Animals that another project wants too, and what is left of a male's load. */
const shared = computed(() =>
  (data.value?.shared ?? []).map(({ animalId, number, sex, projectIds }) => {
    const load = loadOf.value.get(animalId);
    return {
      animalId,
      number,
      projects: projectIds.filter((id) => id !== data.value!.id),
      room:
        sex === 'female'
          ? 'She has one clutch a season at most.'
          : load === undefined
            ? ''
            : `He can be put to ${reader().number(Math.max(0, load))} more this season.`,
    };
  }),
);
const luck = computed(() =>
  (data.value?.luck ?? []).flatMap((one, i) =>
    one ? [{ target: data.value!.targets[i]!, words: luckWords(one, reader()) }] : [],
  ),
);
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>{{ data?.name ?? 'Project' }}</h1>
      <SeasonNav />
      <template v-if="data && session.mayBreed">
        <v-btn variant="outlined" @click="editing = true">Change…</v-btn>
        <v-btn v-if="data.endedOn === null" variant="outlined" @click="end(data, farmToday())">End</v-btn>
        <v-btn v-else variant="outlined" @click="end(data, null)">Go on</v-btn>
        <v-btn variant="text" @click="removing = true">Remove…</v-btn>
      </template>
    </div>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <div v-if="data" class="stack">
        <p>
          <template v-if="data.targets.join() !== data.name"
            ><strong>{{ data.targets.join(', or ') }}.</strong>
          </template>
          <span class="soft"
            >Since {{ dayWords(data.startedOn)
            }}<template v-if="data.endedOn">, ended {{ dayWords(data.endedOn) }}</template
            >.</span
          >
        </p>
        <p v-if="data.note" class="note">{{ data.note }}</p>
        <v-alert
          v-for="one in shared"
          :key="one.animalId"
          type="warning"
          variant="tonal"
          density="compact"
          :icon="false"
        >
          <router-link :to="`/animals/${one.animalId}`">{{ one.number }}</router-link> is wanted by
          <template v-for="(id, i) in one.projects" :key="id"
            ><template v-if="i > 0"> and </template
            ><router-link :to="`/season/projects/${id}`">{{ nameOfOther.get(id) }}</router-link></template
          >
          too. {{ one.room }}
        </v-alert>
        <ProjectPlan
          v-if="planner"
          :project="data"
          :planner="planner"
          :worker="worker"
          :may-breed="session.mayBreed"
          @held="animal = { step: $event }"
        />
        <v-card v-if="luck.length > 0" class="part">
          <h2>Against the odds, over all seasons</h2>
          <p v-for="one in luck" :key="one.target">
            <strong>{{ one.target }}:</strong> {{ one.words.text }}
            <span class="soft">{{ one.words.chance }}</span>
          </p>
          <p class="small soft">
            Odds are those that held before the young were looked at. A clutch counts once it is known of all
            its young whether they are the target.
          </p>
        </v-card>
        <ProjectSeasons :project="data" :may-breed="session.mayBreed" />
        <ProjectAnimals
          :project="data"
          :may-breed="session.mayBreed"
          @add="animal = {}"
          @change="animal = { animalId: $event }"
        />
      </div>
    </StateBlock>
    <ProjectDialog v-if="editing && data" :project="data" @close="editing = false" />
    <ProjectAnimalDialog v-if="animal && data" :project="data" v-bind="animal" @close="animal = null" />
    <ConfirmDialog
      v-if="removing && data"
      title="Remove this project?"
      submit-text="Remove"
      @close="removing = false"
      @confirm="remove(data)"
    >
      <p>Its animals, pairings and clutches stay; the project and what was planned for it go for good.</p>
      <p>A project that is over can be ended instead: then what came of it can still be read.</p>
    </ConfirmDialog>
  </div>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 16px;
}
.note {
  max-width: 72ch;
  white-space: pre-line;
}
</style>
