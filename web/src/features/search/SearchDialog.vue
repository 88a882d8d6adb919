<script setup lang="ts">
import {
  mdiAccountOutline,
  mdiArrowRight,
  mdiBarn,
  mdiCheckBold,
  mdiDna,
  mdiEggOutline,
  mdiMagnify,
  mdiSnake,
} from '@mdi/js';
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useDisplay } from 'vuetify';
import { useSession } from '../../stores/session.ts';
import type { Kind } from './candidates.ts';
import { useSearch } from './useSearch.ts';
import { useTypedActs } from './useTypedActs.ts';

/** Finds anything by a few words, and enters what is typed as an act. */
const emit = defineEmits<{ close: [] }>();
const ICONS: Readonly<Record<Kind | 'act', string>> = {
  act: mdiCheckBold,
  animal: mdiSnake,
  rack: mdiBarn,
  clutch: mdiEggOutline,
  person: mdiAccountOutline,
  gene: mdiDna,
  place: mdiArrowRight,
};
/** Where it opens does not change with what is found. */
const AT_TOP = { alignSelf: 'flex-start', marginTop: '72px' };
/** The keys of arrows, and how far each goes. */
const STEPS: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1 };

const session = useSession();
const router = useRouter();
const { smAndDown } = useDisplay();
const typed = ref('');
const { found, targets } = useSearch(typed);
const { acts, enter } = useTypedActs(typed, targets);
interface Shown {
  readonly key: string;
  readonly icon: string;
  readonly title: string;
  readonly about: string;
  readonly choose: () => Promise<unknown> | void;
}
const shown = computed((): Shown[] => [
  ...acts.value.map((act) => ({
    key: act.key,
    icon: ICONS.act,
    title: act.title,
    about: act.about,
    choose: () => (act.fill === null ? leaveFor(() => enter(act)) : goOn(act.fill)),
  })),
  ...found.value.map(({ key, kind, title, about, to }) => ({
    key,
    icon: ICONS[kind],
    title,
    about,
    choose: () => leaveFor(() => router.push(to)),
  })),
]);
/** By the first animal that has a tub. */
const examples = computed(() => {
  const housed = targets.value.find(({ rack }) => rack.name !== null);
  const one = housed?.animal.number;
  const rack = housed?.rack.name?.toLowerCase();
  return [
    ...(one ? [one] : []),
    ...(session.mayRecord && one && rack
      ? [`weigh ${one} 342`, `ate ${rack} ${housed!.place}`, `cleaned ${rack}`]
      : []),
    'clown',
    'incubators',
  ];
});
const at = ref(0);
watch(typed, () => (at.value = 0));
const current = computed(() => Math.min(at.value, shown.value.length - 1));
const list = useTemplateRef<HTMLElement>('list');
const field = useTemplateRef<HTMLInputElement>('field');

// Shown above the page a moment later than it is there.
onMounted(() => setTimeout(() => field.value?.focus()));

function leaveFor(run: () => Promise<unknown>): void {
  emit('close');
  void run();
}
function goOn(text: string): void {
  typed.value = text;
  field.value?.focus();
}
function onKey(event: KeyboardEvent): void {
  const step = STEPS[event.key];
  if (step !== undefined) {
    at.value = Math.max(0, Math.min(shown.value.length - 1, current.value + step));
    void nextTick(() =>
      list.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' }),
    );
  } else if (event.key === 'Enter') void shown.value[current.value]?.choose();
  else return;
  event.preventDefault();
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :fullscreen="smAndDown"
    width="640"
    :content-props="smAndDown ? {} : { style: AT_TOP }"
    aria-label="Search and enter"
    @update:model-value="emit('close')"
  >
    <v-card class="search">
      <div class="head">
        <v-icon :icon="mdiMagnify" />
        <input
          ref="field"
          v-model="typed"
          class="field"
          type="text"
          role="combobox"
          aria-label="A number, name, gene, rack, person or place, or what was done"
          placeholder="Find, or enter what was done"
          autofocus
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
          enterkeyhint="go"
          maxlength="100"
          aria-autocomplete="list"
          aria-expanded="true"
          aria-controls="search-found"
          :aria-activedescendant="shown.length > 0 ? `search-found-${current}` : undefined"
          @keydown="onKey"
        />
        <v-btn variant="text" @click="emit('close')">Close</v-btn>
      </div>
      <ul id="search-found" ref="list" role="listbox" aria-label="Found" class="found">
        <li
          v-for="(one, i) in shown"
          :id="`search-found-${i}`"
          :key="one.key"
          role="option"
          :aria-selected="i === current"
          class="one"
          :class="{ current: i === current }"
          @click="one.choose()"
          @pointermove="at = i"
        >
          <v-icon :icon="one.icon" size="22" />
          <span class="words">
            <strong>{{ one.title }}</strong>
            <span class="about small soft">{{ one.about }}</span>
          </span>
        </li>
      </ul>
      <p v-if="typed.trim() === ''" class="hint soft">
        For example
        <button v-for="text in examples" :key="text" type="button" class="example" @click="goOn(text)">
          {{ text }}
        </button>
      </p>
      <p v-else-if="shown.length === 0" class="hint soft" role="status">Nothing is found by these words.</p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.search {
  display: flex;
  flex-direction: column;
  max-height: 100%;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 8px 8px 16px;
  border-bottom: 1px solid var(--hair);
}
.field {
  flex: 1;
  min-width: 0;
  height: 48px;
  border: 0;
  background: none;
  color: inherit;
  font-size: 1.1rem;
  outline: none;
}
.found {
  margin: 0;
  padding: 0 0 8px;
  overflow-y: auto;
  list-style: none;
}
.found:empty {
  padding: 0;
}
.one {
  display: grid;
  grid-template-columns: 24px 1fr;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 6px 16px;
  cursor: pointer;
}
.one.current {
  background: rgb(var(--v-theme-surface-light));
  box-shadow: inset 3px 0 rgb(var(--v-theme-primary));
}
.words {
  display: grid;
  min-width: 0;
}
.about {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.hint {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: 0;
  padding: 16px;
}
.example {
  min-height: 32px;
  padding: 2px 10px;
  border: 1px solid var(--hair);
  border-radius: 8px;
  background: none;
  color: rgb(var(--v-theme-on-surface));
}
@media (pointer: coarse) {
  .example {
    min-height: 44px;
  }
}
</style>
