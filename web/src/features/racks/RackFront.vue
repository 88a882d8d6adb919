<script setup lang="ts">
import type { RackView } from '@karyotome/contract';
import { mdiArrowUpBold, mdiArrowULeftTop, mdiCircleOutline, mdiPause } from '@mdi/js';
import { computed } from 'vue';
import { massWords, sexSign } from '../../format/format.ts';
import { useSession } from '../../stores/session.ts';

/** A rack as it stands before you: levels from the top, tubs from the left, each with who lives in it. */
const props = defineProps<{ rack: RackView; mayRecord: boolean }>();
defineEmits<{ remove: [] }>();
const session = useSession();
const levels = computed(() =>
  Array.from({ length: props.rack.levels }, (_, i) => ({
    level: i + 1,
    tubs: props.rack.tubs.filter((tub) => tub.level === i + 1),
  })),
);
const range = computed(() => {
  const { minG, maxG } = props.rack.step;
  return maxG === null ? `from ${minG} g` : `${minG} to ${maxG} g`;
});
const SIGN = { 'move-up': mdiArrowUpBold, hold: mdiPause, 'go-back': mdiArrowULeftTop, none: null } as const;
const WORDS = {
  'move-up': 'advised to move up',
  hold: 'heavy enough, but leave it for now',
  'go-back': 'advised back to the last tub',
  none: '',
} as const;
const isEmpty = computed(() => props.rack.tubs.every((tub) => tub.animals.length === 0));
</script>

<template>
  <v-card class="rack">
    <div class="row">
      <h3>{{ rack.name }}</h3>
      <span class="small soft">{{ rack.step.name }}, {{ range }}</span>
      <v-spacer />
      <v-btn v-if="mayRecord && isEmpty" size="small" variant="text" @click="$emit('remove')">Remove</v-btn>
    </div>
    <div class="levels">
      <div
        v-for="{ level, tubs } in levels"
        :key="level"
        class="level"
        :style="{ gridTemplateColumns: `22px repeat(${rack.tubsPerLevel}, minmax(84px, 1fr))` }"
      >
        <span class="num soft small">{{ level }}</span>
        <div v-for="tub in tubs" :key="tub.id" class="tub" :class="{ free: tub.animals.length === 0 }">
          <router-link
            v-for="animal in tub.animals"
            :key="animal.id"
            :to="`/animals/${animal.id}`"
            class="plain in"
            :title="`${animal.label}${WORDS[animal.verdict] ? ', ' + WORDS[animal.verdict] : ''}${animal.inShed ? ', in shed' : ''}`"
          >
            <span class="number">{{ animal.number }} {{ sexSign(animal.sex) }}</span>
            <span class="small soft num">{{
              animal.massG === null ? '' : massWords(animal.massG, session.settings?.massUnit)
            }}</span>
            <span class="signs">
              <v-icon v-if="animal.inShed" :icon="mdiCircleOutline" size="16" aria-label="in shed" />
              <v-icon
                v-if="SIGN[animal.verdict]"
                :icon="SIGN[animal.verdict]!"
                size="18"
                :aria-label="WORDS[animal.verdict]"
              />
            </span>
          </router-link>
          <span v-if="tub.animals.length === 0" class="small soft">free</span>
        </div>
      </div>
    </div>
  </v-card>
</template>

<style scoped>
.rack {
  padding: 14px 16px;
}
.levels {
  display: grid;
  gap: 4px;
  margin-top: 10px;
  overflow-x: auto;
}
.level {
  display: grid;
  gap: 4px;
  align-items: stretch;
}
.level > .num {
  align-self: center;
}
.tub {
  min-height: 48px;
  padding: 4px 8px;
  border-radius: 4px 4px 10px 10px;
  background: rgb(var(--v-theme-surface-variant));
  color: rgb(var(--v-theme-on-surface-variant));
}
.free {
  display: grid;
  place-items: center;
  background: transparent;
  border: 1.5px dashed var(--hair);
}
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
