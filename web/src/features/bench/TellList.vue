<script setup lang="ts">
import type { Catalogue, CatalogueTell, Sighting, TellWeight, Zone } from '@karyotome/core';
import { computed } from 'vue';
import { ownersWords, tellsOf } from './bench-words.ts';
import TellState from './TellState.vue';
import type { Mark } from './useLooks.ts';

/** The tells of one zone: seen, not seen, cannot say. */
const props = defineProps<{
  zone: Zone;
  tells: readonly CatalogueTell[];
  sightings: Readonly<Record<string, Sighting>>;
  weights: readonly TellWeight[];
  catalogue: Catalogue;
  mayRecord: boolean;
}>();
defineEmits<{ mark: [tell: string, state: Mark]; chances: [tell: CatalogueTell]; add: [] }>();
const own = computed(() => tellsOf(props.tells, props.zone));
const weightOf = (id: string): TellWeight | undefined => props.weights.find(({ tell }) => tell === id);
function factorWords(id: string): string {
  const weight = weightOf(id);
  if (!weight) return '';
  if (weight.countedWith !== null) return 'counted with another in this zone';
  const { factor } = weight;
  return factor >= 1
    ? `${factor >= 10 ? Math.round(factor) : +factor.toFixed(1)} times likelier`
    : `${factor <= 0.1 ? Math.round(1 / factor) : +(1 / factor).toFixed(1)} times less likely`;
}
const percent = (p: number): string => `${Math.round(p * 100)}%`;
</script>

<template>
  <section class="tells" :aria-label="`Tells: ${zone}`">
    <h3>{{ zone[0]!.toUpperCase() + zone.slice(1) }}</h3>
    <p v-if="own.length === 0" class="soft small">Nothing that this pair can give is told apart here.</p>
    <div v-for="tell in own" :key="tell.id" class="tell">
      <div class="words">
        <span>{{ tell.text }}</span>
        <span class="small soft owner">
          {{ ownersWords(tell, catalogue) }},
          <button type="button" class="chance" @click="$emit('chances', tell)">
            {{ percent(tell.pWith) }} with it, {{ percent(tell.pWithout) }} without{{
              tell.isOwn ? ', yours' : ''
            }}
          </button>
        </span>
        <span v-if="factorWords(tell.id)" class="small factor">{{ factorWords(tell.id) }}</span>
      </div>
      <TellState
        :state="sightings[tell.id] ?? null"
        :label="`${zone}: ${tell.text}`"
        :disabled="!mayRecord"
        @mark="$emit('mark', tell.id, $event)"
      />
    </div>
    <v-btn v-if="mayRecord" variant="text" size="small" class="add" @click="$emit('add')"
      >Add a tell here</v-btn
    >
  </section>
</template>

<style scoped>
.tells {
  display: grid;
  align-content: start;
  gap: 8px;
}
.tell {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--hair);
}
.words {
  display: grid;
  line-height: 1.3;
}
.chance {
  padding: 2px 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  text-decoration: underline dotted;
  cursor: pointer;
}
.factor {
  font-weight: 640;
}
.add {
  justify-self: start;
}
</style>
