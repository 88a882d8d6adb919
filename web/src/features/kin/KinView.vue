<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { oddsWords, sexWords } from '../../format/format.ts';
import { useAnimal, useKin } from '../../stores/queries.ts';
import { useCatalogue } from '../../stores/useCatalogue.ts';
import StateBlock from '../../ui/StateBlock.vue';
import KinChart from './KinChart.vue';
import { evidencePath } from './kin-layout.ts';

/** One animal's kin, to any depth, with the evidence path of the chosen claim. */
const route = useRoute();
const router = useRouter();
const id = computed(() => String(route.params['id']));
const generations = computed(() => Math.min(20, Math.max(1, Number(route.query['generations'] ?? 2) || 2)));
const { data: animal } = useAnimal(id);
const catalogue = useCatalogue();
const claims = computed(() => animal.value?.claims ?? []);
const chosen = computed(() => {
  const { locus, allele } = route.query;
  return claims.value.find((claim) => claim.locus === locus && claim.allele === allele) ?? null;
});
const gene = computed(() => {
  const { locus, allele } = route.query;
  return typeof locus === 'string' && typeof allele === 'string' ? { locus, allele } : null;
});
const { data, status, error, refetch } = useKin(id, generations, gene);
const evidence = computed(() => new Set((chosen.value?.support ?? []).map((support) => support.animalId)));
const path = computed(() => evidencePath(data.value ?? [], id.value, [...evidence.value]));
/** Records of animals further off than the chart reaches. */
const beyond = computed(() => {
  const shown = new Set((data.value ?? []).map((one) => one.id));
  return [...evidence.value].filter((one) => !shown.has(one)).length;
});
function choose(key: string | null): void {
  const [locus, allele] = key?.split('|') ?? [];
  void router.replace({ query: { ...route.query, locus, allele } });
}
function reach(steps: number): void {
  void router.replace({ query: { ...route.query, generations: String(generations.value + steps) } });
}
</script>

<template>
  <div class="place">
    <div class="place-head">
      <h1>
        Kin of <router-link :to="`/animals/${id}`">{{ animal?.number ?? '' }}</router-link>
      </h1>
      <v-btn variant="outlined" :disabled="generations <= 1" @click="reach(-1)">Fewer generations</v-btn>
      <v-btn variant="outlined" :disabled="generations >= 20" @click="reach(1)">More generations</v-btn>
    </div>
    <div class="row choose">
      <span id="follow" class="small soft">Follow a gene</span>
      <v-chip-group
        :model-value="chosen ? `${chosen.locus}|${chosen.allele}` : null"
        selected-class="chosen"
        aria-labelledby="follow"
        @update:model-value="choose($event)"
      >
        <v-chip
          v-for="claim in claims"
          :key="claim.locus + claim.allele"
          :value="`${claim.locus}|${claim.allele}`"
          label
          >{{ claim.label }}</v-chip
        >
      </v-chip-group>
    </div>
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <template v-if="data">
        <KinChart
          :animals="data"
          :proband="id"
          :path="path"
          :evidence="evidence"
          @open="router.push(`/animals/${$event}`)"
        />
        <p class="small soft legend">
          Squares are males, circles females, diamonds not sexed; the arrow marks {{ animal?.number }}.
          <template v-if="chosen"
            >Filled: {{ catalogue.alleleName(chosen.allele) }} shows. Half filled: carried for certain. A dot:
            carried perhaps, with its odds. The strong line leads to the records that “{{ chosen.label }}”
            rests on<template v-if="beyond > 0">; {{ beyond }} of them lie further off</template>.</template
          >
          Dashed: one of several candidate sires. A double line joins related parents. The table below has
          coefficients of relationship and inbreeding.
        </p>
        <details class="small">
          <summary>The same as a table</summary>
          <table class="table">
            <thead>
              <tr>
                <th scope="col">Animal</th>
                <th scope="col">Sex</th>
                <th scope="col">Genes</th>
                <th scope="col">Dam</th>
                <th scope="col">Sire</th>
                <th scope="col" class="num">Related</th>
                <th scope="col" class="num">Inbred</th>
                <th v-if="chosen" scope="col" class="num">Carried</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in data" :key="one.id">
                <td>
                  <router-link :to="`/animals/${one.id}`">{{ one.number }}</router-link>
                </td>
                <td>{{ sexWords(one.sex) }}</td>
                <td>{{ one.label }}</td>
                <td>{{ data.find((other) => other.id === one.dam)?.number ?? '' }}</td>
                <td>
                  {{
                    one.sires
                      .map(({ id: sire, p }) => {
                        const number = data!.find((other) => other.id === sire)?.number ?? 'further off';
                        return p < 1 ? `${number} (${oddsWords(p)})` : number;
                      })
                      .join(', ')
                  }}
                </td>
                <td class="num">{{ oddsWords(one.relationship) }}</td>
                <td class="num">{{ oddsWords(one.inbreeding) }}</td>
                <td v-if="chosen" class="num">{{ one.gene ? oddsWords(one.gene.pCarries) : '' }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
    </StateBlock>
  </div>
</template>

<style scoped>
.choose {
  margin-bottom: 8px;
}
.legend {
  max-width: 90ch;
  margin: 10px 0;
}
.table {
  width: 100%;
  margin-top: 8px;
  border-collapse: collapse;
}
.table th,
.table td {
  padding: 4px 8px;
  border-bottom: 1px solid var(--hair);
  text-align: left;
}
.table .num {
  text-align: right;
}
.chosen {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-on-primary)) !important;
}
</style>
