<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { isTyping } from '../ui/keys.ts';

/** Keys: a number goes to a place, `?` shows the keys of the place one is in. Typing in a field is left alone. */
const props = defineProps<{ places: readonly { to: string; title: string }[] }>();
const route = useRoute();
const router = useRouter();
const isOpen = ref(false);
const KEYS: readonly { readonly at: RegExp; readonly keys: readonly (readonly [string, string])[] }[] = [
  {
    at: /^\/today$/,
    keys: [
      ['J, K', 'next line, line before'],
      ['T', 'the meal of this line was taken'],
      ['R', 'it was refused'],
      ['Enter', 'open this line’s animal or clutch'],
    ],
  },
  {
    at: /^\/rounds$/,
    keys: [
      ['T, R, N', 'took it, refused, not offered'],
      ['D, B, C', 'skin dull, eyes blue, clear again'],
      ['S, P', 'shed whole, shed in pieces'],
      ['E, Q, K', 'eye caps off, eye caps stay, soaked'],
      ['L, G, V', 'cleaned, pushes at its tub, regurgitated'],
      ['W, O', 'weigh, note'],
      ['U', 'takes back what was entered last'],
      ['→, ←', 'next tub, tub before'],
      ['Esc', 'back to all racks'],
    ],
  },
  {
    at: /^\/racks$/,
    keys: [
      ['Enter', 'on a ring: takes the animal up; on “put here”: lays all in the hand down'],
      ['Esc', 'lets go'],
    ],
  },
  {
    at: /^\/bench\/.+/,
    keys: [
      ['Enter', 'takes this hatchling in the hand; in the hand, Esc lays it back'],
      ['J, K', 'in the hand: the next one, the one before'],
      ['[ ]', 'on the table: into the group before, into the next or a new one'],
      ['M', 'marks it to be compared: with the second one both are shown'],
      ['Arrows', 'while comparing: other pictures of the left one, with Shift of the right one'],
    ],
  },
  {
    at: /^\/season$/,
    keys: [
      ['Enter', 'on “Select”: selects this male; on “Put here”: introduces him to her'],
      ['Esc', 'lets him go'],
    ],
  },
  {
    at: /^\/season\/clutches\//,
    keys: [
      ['Space', 'chooses this egg, or lets it go'],
      ['Arrows', 'lay it elsewhere in the box'],
      ['Enter', 'after a weight: on to the next egg'],
    ],
  },
];
const here = computed(() => KEYS.find(({ at }) => at.test(route.path))?.keys ?? []);

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
  if (event.key === '?') isOpen.value = true;
  // A dialog is answered first.
  if (document.querySelector('.v-dialog.v-overlay--active')) return;
  const place = props.places[Number(event.key) - 1];
  if (place) void router.push(place.to);
}
useEventListener('keydown', onKey);
</script>

<template>
  <v-dialog v-model="isOpen" max-width="420">
    <v-card title="Keys">
      <v-card-text>
        <dl class="keys">
          <template v-for="[keys, act] in here" :key="keys">
            <dt>{{ keys }}</dt>
            <dd>{{ act }}</dd>
          </template>
          <template v-for="(place, index) in places" :key="place.to">
            <dt>{{ index + 1 }}</dt>
            <dd>{{ place.title }}</dd>
          </template>
          <dt>/, Ctrl+K</dt>
          <dd>search, and enter by typing</dd>
          <dt>?</dt>
          <dd>these keys</dd>
        </dl>
      </v-card-text>
      <v-card-actions><v-spacer /><v-btn @click="isOpen = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 72px 1fr;
  gap: 6px 12px;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
