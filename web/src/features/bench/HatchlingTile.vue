<script setup lang="ts">
import type { HatchlingView } from '@karyotome/contract';
import type { Ranking } from '@karyotome/core';
import { numberWords } from '@karyotome/words';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { oddsWords, sexSign, sexWords } from '../../format/format.ts';
import SureText from '../../ui/SureText.vue';
import { identificationOf, leaderOf, stillToDo } from './bench-words.ts';

/** One hatchling on the table: what it is or may be, and what is left to do with it. */
const props = defineProps<{
  hatchling: HatchlingView;
  ranking: Ranking | null | undefined;
  isMarked?: boolean;
  isChosen?: boolean;
  isDim?: boolean;
}>();
defineEmits<{ open: [] }>();
const identification = computed(() => identificationOf(props.hatchling));
const leader = computed(() => leaderOf(props.ranking));
/** A leader fainter than this is an accident of the order: what stands so far says more. */
const LEADS = 0.2;
const SEEN = 0.8;
const OPEN = 0.05;
const standing = computed(() => {
  const { ranking } = props;
  if (!ranking || (leader.value?.p ?? 0) >= LEADS) return null;
  if (ranking.markers.length === 0) return `${ranking.candidates.length + ranking.rarer} kinds possible`;
  const seen = ranking.genes.filter(({ p }) => p >= SEEN).map(({ label }) => label);
  const open = ranking.genes.filter(({ p }) => p > OPEN && p < SEEN).length;
  return `${seen.join(' ')}${seen.length > 0 ? ', ' : ''}${open} ${open === 1 ? 'gene' : 'genes'} open`;
});
const todo = computed(() => stillToDo(props.hatchling));
const sire = computed(() => {
  const { sires } = props.hatchling;
  return sires.length > 1 ? sires.toSorted((a, b) => b.p - a.p)[0]! : null;
});
const words = computed(() => {
  const { number, sex, label, identified } = props.hatchling;
  const what = identified
    ? label
    : leader.value
      ? `may be ${leader.value.label}, ${oddsWords(leader.value.p)}`
      : 'not identified';
  return `${number}, ${sexWords(sex)}, ${what}`;
});
</script>

<template>
  <button
    type="button"
    class="tile"
    :class="{ marked: isMarked, chosen: isChosen, dim: isDim }"
    :data-number="hatchling.number"
    :aria-label="words"
    :aria-current="isChosen ? 'true' : undefined"
    @click="$emit('open')"
  >
    <img
      v-if="hatchling.pictureIds[0]"
      :src="api.thumbUrl(hatchling.pictureIds[0])"
      alt=""
      loading="lazy"
      class="thumb"
      draggable="false"
    />
    <span v-else class="thumb blank small">no picture</span>
    <span class="head">
      <strong :title="numberWords(hatchling.number) ?? undefined">{{ hatchling.number }}</strong>
      <span class="sex" :title="sexWords(hatchling.sex)">{{ sexSign(hatchling.sex) }}</span>
    </span>
    <span v-if="hatchling.identified" class="label">
      <strong>{{ hatchling.label }}</strong>
      <span v-if="identification" class="small soft">{{ ` ${identification.body.sure}` }}</span>
    </span>
    <span v-else-if="standing" class="label small soft">{{ standing }}</span>
    <span v-else-if="leader" class="label small"
      ><SureText :text="leader.label" :p="Math.min(leader.p, 0.98)" /> {{ oddsWords(leader.p) }}</span
    >
    <span v-if="sire" class="small soft">by {{ sire.number }}, {{ oddsWords(sire.p) }}</span>
    <span v-if="hatchling.isTwin" class="small soft">twin, two from one egg</span>
    <span v-if="hatchling.impossible.length > 0 || hatchling.sexDoubts.length > 0" class="small doubt"
      >contradicts its parents</span
    >
    <span v-if="todo.length > 0" class="small soft todo">{{ todo.join(', ') }}</span>
    <span v-else class="small todo done">all done</span>
  </button>
</template>

<style scoped>
.tile {
  display: grid;
  grid-template-rows: auto auto;
  align-content: start;
  gap: 3px;
  width: 100%;
  height: 100%;
  padding: 8px;
  border: 1.5px solid var(--hair);
  border-radius: 12px;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.tile:hover,
.tile:focus-visible {
  outline: 2px solid rgb(var(--v-theme-primary));
}
.tile.chosen {
  border-color: rgb(var(--v-theme-primary));
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 9%, rgb(var(--v-theme-surface)));
}
.tile.marked {
  border: 2px dashed rgb(var(--v-theme-secondary));
}
.tile.dim {
  opacity: 0.45;
}
.thumb {
  display: grid;
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 8px;
  place-items: center;
}
.blank {
  border: 1.5px dashed var(--hair);
  color: var(--soft);
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
.sex {
  color: rgb(var(--v-theme-secondary));
  font-size: 1.15rem;
}
.label {
  line-height: 1.25;
}
.doubt {
  color: rgb(var(--v-theme-error));
  font-weight: 640;
}
.done {
  color: rgb(var(--v-theme-success));
  font-weight: 640;
}
</style>
