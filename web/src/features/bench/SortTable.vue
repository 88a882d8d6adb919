<script setup lang="ts">
import type { HatchlingView } from '@karyotome/contract';
import { mdiClose, mdiPlus } from '@mdi/js';
import { computed, ref } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import type { RankingAnswer } from '../../workers/ranking.worker.ts';
import type { Pull } from './bench-words.ts';
import HatchlingTile from './HatchlingTile.vue';
import { BOX, type useSorting } from './useSorting.ts';

/**
 * The clutch side by side, like put with like: dragged, or with the keys [ and ]. What was recorded pulls animals out of the
 * rest.
 */
const props = defineProps<{
  sorting: ReturnType<typeof useSorting>;
  rankings: ReadonlyMap<string, RankingAnswer>;
  /** What was recorded in this clutch, and whom each would pull out. */
  pulls: readonly Pull[];
  /** Marked to be compared. */
  marked: ReadonlySet<string>;
  mayBreed: boolean;
}>();
const emit = defineEmits<{ open: [id: string]; mark: [id: string] }>();
const pulled = ref<string | null>(null);
const pulledFirst = (a: HatchlingView, b: HatchlingView): number => Number(isPulled(b)) - Number(isPulled(a));
const zones = computed(() => [
  // What was pulled out comes first.
  { index: BOX, name: 'In the box', members: props.sorting.inBox.value.toSorted(pulledFirst) },
  ...props.sorting.groups.value.map((group, index) => ({
    index,
    name: group.name,
    members: props.sorting.membersOf(group),
  })),
]);
const everybody = computed(() => zones.value.flatMap(({ members }) => members));
const pull = computed(() => props.pulls.find(({ words }) => words === pulled.value) ?? null);
const isPulled = (one: HatchlingView): boolean => pull.value === null || pull.value.ids.has(one.id);

function drop(index: number, members: readonly HatchlingView[]): void {
  const ids = members.map(({ id }) => id);
  if (index !== BOX) props.sorting.arrange(index, ids);
  else for (const id of ids) if (props.sorting.groupOf(id) !== BOX) props.sorting.put(id, BOX);
}
function groupPulled(): void {
  if (!pull.value) return;
  const ids = everybody.value.filter(isPulled).map(({ id }) => id);
  props.sorting.add(pull.value.words.slice(0, 40), ids);
  pulled.value = null;
}
function onKey(event: KeyboardEvent, one: HatchlingView): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const last = props.sorting.groups.value.length - 1;
  const group = props.sorting.groupOf(one.id);
  if (event.key === 'm') emit('mark', one.id);
  else if (!props.mayBreed) return;
  else if (event.key === ']') {
    if (group < last) props.sorting.put(one.id, group + 1);
    else props.sorting.add(`Group ${last + 2}`, [one.id]);
  } else if (event.key === '[' && group >= 0) props.sorting.put(one.id, group - 1);
  else return;
  event.preventDefault();
  event.stopPropagation();
  // The tile moves to another list and is drawn anew there: the hand stays on it.
  setTimeout(() => document.querySelector<HTMLElement>(`[data-number="${one.number}"]`)?.focus(), 30);
}
</script>

<template>
  <div class="table">
    <div v-if="pulls.length > 0 || mayBreed" class="row tools">
      <v-select
        v-if="pulls.length > 0"
        v-model="pulled"
        label="Pull out by what was recorded"
        :items="pulls.map(({ words, ids }) => ({ value: words, title: `${words} (${ids.size})` }))"
        clearable
        density="compact"
        class="pull"
      />
      <v-btn v-if="pulled && mayBreed" variant="outlined" @click="groupPulled">Put these together</v-btn>
      <v-spacer />
      <v-btn
        v-if="mayBreed"
        variant="outlined"
        :prepend-icon="mdiPlus"
        @click="sorting.add(`Group ${sorting.groups.value.length + 1}`)"
        >A group</v-btn
      >
    </div>
    <section v-for="group in zones" :key="group.index" class="group" :aria-label="group.name">
      <div v-if="sorting.groups.value.length > 0" class="name">
        <input
          v-if="group.index !== BOX && mayBreed"
          :value="group.name"
          class="rename"
          maxlength="40"
          :aria-label="`Name of the group ${group.name}`"
          @change="sorting.rename(group.index, ($event.target as HTMLInputElement).value || 'Group')"
        />
        <h3 v-else>{{ group.name }}</h3>
        <span class="soft small">{{ group.members.length }}</span>
        <v-btn
          v-if="group.index !== BOX && mayBreed"
          :icon="mdiClose"
          size="x-small"
          variant="text"
          :aria-label="`Dissolve the group ${group.name}`"
          @click="sorting.remove(group.index)"
        />
      </div>
      <VueDraggable
        :model-value="group.members"
        group="hatchlings"
        :disabled="!mayBreed"
        :force-fallback="true"
        :fallback-tolerance="6"
        :delay="180"
        :delay-on-touch-only="true"
        class="tiles"
        :class="{ empty: group.members.length === 0 }"
        @update:model-value="drop(group.index, $event)"
      >
        <div v-for="one in group.members" :key="one.id" @keydown="onKey($event, one)">
          <HatchlingTile
            :hatchling="one"
            :ranking="rankings.get(one.id)?.ranking"
            :is-marked="marked.has(one.id)"
            :is-dim="!isPulled(one)"
            @open="$emit('open', one.id)"
          />
        </div>
      </VueDraggable>
    </section>
  </div>
</template>

<style scoped>
.table {
  display: grid;
  gap: 12px;
}
.pull {
  max-width: 340px;
}
.group {
  display: grid;
  gap: 6px;
}
.name {
  display: flex;
  align-items: center;
  gap: 8px;
}
.rename {
  width: min(340px, 70%);
  min-height: 36px;
  padding: 0 8px;
  border: 1.5px solid transparent;
  border-radius: 8px;
  background: none;
  color: inherit;
  font: inherit;
  font-family: var(--v-font-heading);
  font-weight: 640;
}
.rename:hover,
.rename:focus {
  border-color: var(--hair);
  outline: none;
}
.rename:focus-visible {
  border-color: rgb(var(--v-theme-primary));
}
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px;
  min-height: 64px;
}
.tiles.empty {
  border: 1.5px dashed var(--hair);
  border-radius: 12px;
}
@media (width < 600px) {
  .tiles {
    grid-template-columns: repeat(2, 1fr);
  }
  .pull {
    max-width: none;
    flex: 1 1 100%;
  }
}
</style>
