<script setup lang="ts">
import type { RackView } from '@karyotome/contract';
import {
  mdiAlertCircleOutline,
  mdiArrowUpBold,
  mdiArrowULeftTop,
  mdiBroom,
  mdiPause,
  mdiWaterOutline,
} from '@mdi/js';
import { computed } from 'vue';
import { massWords, sexSign } from '../../format/format.ts';

/** An animal in its tub: its number, its weight, and what of it asks for attention. Can be taken up and dragged. */
const props = defineProps<{
  animal: RackView['tubs'][number]['animals'][number];
  mayHouse: boolean;
  isHeld: boolean;
}>();
defineEmits<{ take: [] }>();

const SIGN = { 'move-up': mdiArrowUpBold, hold: mdiPause, 'go-back': mdiArrowULeftTop, none: null } as const;
const WORDS = {
  'move-up': 'advised to move up',
  hold: 'heavy enough, but leave it for now',
  'go-back': 'advised back to the last tub',
  none: '',
} as const;
const FIT = { light: 'lighter than its tub is for', heavy: 'heavier than its tub is for', fits: '' } as const;
const description = computed(() => {
  const { animal } = props;
  return [
    animal.label,
    WORDS[animal.verdict],
    animal.fit ? FIT[animal.fit] : 'never weighed',
    animal.inShed ? 'in shed' : '',
    animal.concern ? 'a second look' : '',
    animal.cleanDue ? 'cleaning due' : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
});
</script>

<template>
  <div class="in" :class="{ held: isHeld }" :draggable="mayHouse" :title="description">
    <router-link :to="`/animals/${animal.id}`" class="plain number" draggable="false"
      >{{ animal.number }} {{ sexSign(animal.sex) }}</router-link
    >
    <span class="small num" :class="animal.fit === 'fits' ? 'soft' : 'off'">{{
      animal.massG === null ? 'not weighed' : massWords(animal.massG)
    }}</span>
    <span class="signs">
      <v-icon v-if="animal.concern" :icon="mdiAlertCircleOutline" size="16" aria-label="a second look" />
      <v-icon v-if="animal.cleanDue" :icon="mdiBroom" size="16" aria-label="cleaning due" />
      <v-icon v-if="animal.inShed" :icon="mdiWaterOutline" size="16" aria-label="in shed" />
      <v-icon
        v-if="SIGN[animal.verdict]"
        :icon="SIGN[animal.verdict]!"
        size="18"
        :aria-label="WORDS[animal.verdict]"
      />
    </span>
    <button
      v-if="mayHouse"
      type="button"
      class="hand"
      :aria-pressed="isHeld"
      :aria-label="`${isHeld ? 'Let go' : 'Take up'} ${animal.number}`"
      @click="$emit('take')"
    >
      <span class="dot" />
    </button>
  </div>
</template>

<style scoped>
.in {
  position: relative;
  display: grid;
  text-align: left;
}
.in .num {
  text-align: left;
}
.number {
  font-weight: 640;
  font-size: 0.86rem;
  white-space: nowrap;
}
.held {
  outline: 2px dashed rgb(var(--v-theme-primary));
  outline-offset: 3px;
  border-radius: 4px;
}
.off {
  font-weight: 640;
  color: rgb(var(--v-theme-secondary));
}
.hand {
  position: absolute;
  top: -6px;
  right: -10px;
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}
.dot {
  width: 14px;
  height: 14px;
  border: 1.5px solid currentcolor;
  border-radius: 50%;
  opacity: 0.6;
}
.hand[aria-pressed='true'] .dot {
  background: rgb(var(--v-theme-primary));
  opacity: 1;
}
.signs {
  position: absolute;
  right: -2px;
  bottom: 0;
  display: flex;
  gap: 4px;
  font-weight: 800;
  color: rgb(var(--v-theme-secondary));
}
</style>
