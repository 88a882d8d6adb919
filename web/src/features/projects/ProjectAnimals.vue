<script setup lang="ts">
import type { ProjectAnimal, ProjectView } from '@karyotome/contract';
import { mdiClose, mdiPencilOutline, mdiPlus } from '@mdi/js';
import { api } from '../../api/resources.ts';
import { dayWords, oddsWords, sexSign } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Who belongs to a project, why, and what each is of its targets. */
const props = defineProps<{ project: ProjectView; mayBreed: boolean }>();
defineEmits<{ add: []; change: [animalId: string] }>();
const notices = useNotices();
/** "Clown", or the chance that it is one; nothing where it cannot be. */
const targetWords = ({ chances }: ProjectAnimal): string[] =>
  chances.flatMap((p, i) => {
    const target = props.project.targets[i]!;
    return p > 0.999 ? [`is ${target}`] : p > 0.001 ? [`${oddsWords(p)} ${target}`] : [];
  });
const removal = useWrite(api.removeProjectAnimal);
const restoring = useWrite(api.addProjectAnimal);
async function remove({ id, animal, reason, step }: ProjectAnimal): Promise<void> {
  if (!(await removal.run(id))) return notices.warn(removal.message.value ?? 'It could not be taken out');
  notices.say(`${animal.number} taken out of ${props.project.name}`, async () => {
    if (!(await restoring.run(props.project.id, { animalId: animal.id, reason, step })))
      notices.warn(restoring.message.value ?? 'It could not be put back');
  });
}
</script>

<template>
  <v-card class="part">
    <div class="row">
      <h2>Animals</h2>
      <v-spacer />
      <v-btn v-if="mayBreed" variant="outlined" :prepend-icon="mdiPlus" @click="$emit('add')"
        >Add an animal…</v-btn
      >
    </div>
    <p v-if="project.projectAnimals.length === 0">No animal yet.</p>
    <div v-for="one in project.projectAnimals" :key="one.id" class="animal">
      <span>
        <router-link :to="`/animals/${one.animal.id}`"
          ><strong>{{ one.animal.number }}</strong></router-link
        >
        <span :title="one.animal.sex">{{ ` ${sexSign(one.animal.sex)} ` }}</span>
        <span class="soft">{{ one.animal.label }}</span>
      </span>
      <span class="small">
        <strong v-for="words in targetWords(one)" :key="words">{{ words }}. </strong>
        <template v-if="one.step !== null">Held back from step {{ one.step + 1 }}. </template>
        {{ one.reason }}
        <span class="soft">Since {{ dayWords(one.addedOn) }}.</span>
      </span>
      <span v-if="mayBreed" class="acts">
        <v-btn
          :icon="mdiPencilOutline"
          variant="text"
          size="small"
          :aria-label="`Why ${one.animal.number} is in it`"
          @click="$emit('change', one.animal.id)"
        />
        <v-btn
          :icon="mdiClose"
          variant="text"
          size="small"
          :aria-label="`Take ${one.animal.number} out`"
          @click="remove(one)"
        />
      </span>
    </div>
  </v-card>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  padding: 16px;
}
.animal {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr) auto;
  align-items: center;
  gap: 2px 14px;
  min-height: 44px;
}
.animal + .animal {
  border-top: 1px solid var(--hair);
}
.acts {
  display: flex;
}
@media (width < 700px) {
  .animal {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .animal > .small {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
