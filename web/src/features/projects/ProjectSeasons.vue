<script setup lang="ts">
import type { ClutchOutcome, ProjectPairing, ProjectView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { countWords, dayWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Season by season: what was planned and made, and what hatched against the odds. */
const props = defineProps<{ project: ProjectView; mayBreed: boolean }>();
const notices = useNotices();
const seasons = computed(() => {
  const groups = new Map<number, ProjectPairing[]>();
  for (const pairing of props.project.pairings)
    groups.set(pairing.season, [...(groups.get(pairing.season) ?? []), pairing]);
  return [...groups];
});
const madeWords = ({ plannedId, pairingId, clutches }: ProjectPairing): string =>
  pairingId === null
    ? 'planned, not made yet'
    : [
        plannedId === null ? 'made' : 'planned and made',
        ...(clutches.length === 0 ? ['no clutch yet'] : []),
      ].join(', ');
const outcomeWords = ({ young, hits, open, expected }: ClutchOutcome, target: string): string =>
  [
    `${hits} of ${young} ${target}`,
    `${reader().number(expected, 1)} expected`,
    ...(open > 0 ? [`${open} not known yet`] : []),
  ].join(', ');
const removal = useWrite(api.removePlannedPairing);
async function remove(id: string): Promise<void> {
  if (await removal.run(id)) notices.say('Planned no more');
  else notices.warn(removal.message.value ?? 'It could not be removed');
}
</script>

<template>
  <v-card class="part">
    <h2>Season by season</h2>
    <p v-if="seasons.length === 0">
      Nothing was planned or made yet. Pairings of its animals with one another stand here, with what hatched.
    </p>
    <section v-for="[season, pairings] in seasons" :key="season" class="season">
      <h3>{{ season }}</h3>
      <div v-for="one in pairings" :key="one.pairingId ?? one.plannedId!" class="pairing">
        <span>
          <router-link :to="`/animals/${one.dam.id}`">{{ one.dam.number }}</router-link> ×
          <template v-for="(sire, i) in one.sires" :key="sire.id"
            ><template v-if="i > 0"> or </template
            ><router-link :to="`/animals/${sire.id}`">{{ sire.number }}</router-link></template
          >
          <span class="small soft">{{ ` ${madeWords(one)}` }}</span>
        </span>
        <v-btn
          v-if="mayBreed && one.plannedId && one.pairingId === null"
          size="small"
          variant="text"
          @click="remove(one.plannedId)"
          >Plan no more</v-btn
        >
        <div v-for="clutch in one.clutches" :key="clutch.id" class="clutch small">
          <router-link :to="`/season/clutches/${clutch.id}`">Clutch {{ clutch.name }}</router-link>
          <span class="soft">
            {{
              clutch.hatchedOn
                ? `hatched ${dayWords(clutch.hatchedOn)}, ${clutch.hatched} of ${countWords(clutch.eggs, 'egg', 'eggs')}`
                : `laid ${dayWords(clutch.laidOn)}, ${countWords(clutch.eggs, 'egg', 'eggs')}`
            }}
          </span>
          <span v-for="(outcome, i) in clutch.outcomes" :key="i">{{
            outcomeWords(outcome, project.targets[i]!)
          }}</span>
        </div>
      </div>
    </section>
  </v-card>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 16px;
}
.season {
  display: grid;
  gap: 6px;
}
.pairing {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 2px 12px;
  min-height: 36px;
}
.clutch {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding-left: 14px;
}
</style>
