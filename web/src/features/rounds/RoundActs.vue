<script setup lang="ts">
import { ROUND_ACTS, type RoundAct } from './round-acts.ts';

/** One large button for each thing that can be logged. By itself, so that it stands still while tubs go by. */
const props = defineProps<{ isDue: boolean; hasMeal: boolean }>();
const emit = defineEmits<{ act: [RoundAct]; weigh: []; note: []; photo: [File] }>();
const GROUPS = [
  { name: 'meal', title: 'Meal' },
  { name: 'shed', title: 'Skin' },
  { name: 'care', title: 'Tub' },
] as const;
const actsOf = (group: RoundAct['group']): RoundAct[] => ROUND_ACTS.filter((act) => act.group === group);
const isFirst = (act: RoundAct): boolean => act.key === 't' && props.isDue;
function choose(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (file) emit('photo', file);
  input.value = '';
}
</script>

<template>
  <section v-for="group in GROUPS" :key="group.name" :aria-label="group.title">
    <div class="acts" :class="`for-${group.name}`">
      <v-btn
        v-for="act in actsOf(group.name)"
        :key="act.key"
        :variant="isFirst(act) ? 'flat' : 'outlined'"
        :color="isFirst(act) ? 'primary' : undefined"
        :disabled="group.name === 'meal' && act.key !== 'n' && !hasMeal"
        class="act"
        @click="emit('act', act)"
        >{{ act.title }}<kbd>{{ act.key }}</kbd></v-btn
      >
      <template v-if="group.name === 'care'">
        <v-btn variant="outlined" class="act" @click="emit('weigh')">Weigh<kbd>w</kbd></v-btn>
        <v-btn variant="outlined" class="act" @click="emit('note')">Note<kbd>o</kbd></v-btn>
        <label class="v-btn photo act">
          Photo
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            capture="environment"
            @change="choose"
          />
        </label>
      </template>
    </div>
  </section>
</template>

<style scoped>
.acts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 8px;
}
.act.act {
  /* Larger than a button's own least height, which stands in its style. */
  min-height: 56px !important;
  font-size: 1rem;
}
.for-meal {
  grid-template-columns: repeat(3, 1fr);
}
.for-meal .act.act {
  min-height: 72px !important;
  font-size: 1.1rem;
}
kbd {
  margin-left: 8px;
  padding: 0 6px;
  border: 1px solid var(--hair);
  border-radius: 4px;
  font: inherit;
  font-size: 0.8rem;
  opacity: 0.8;
}
.photo {
  display: grid;
  place-items: center;
  border: 1px solid currentcolor;
  border-radius: 8px;
  cursor: pointer;
}
.photo input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.photo:focus-within {
  outline: 2px solid rgb(var(--v-theme-secondary));
}
@media (pointer: coarse), (width < 600px) {
  kbd {
    display: none;
  }
  .acts {
    grid-template-columns: repeat(3, 1fr);
  }
}
</style>
