<script setup lang="ts">
import {
  mdiBarn,
  mdiCalendarHeart,
  mdiClipboardCheckOutline,
  mdiCogOutline,
  mdiDna,
  mdiEyeOutline,
  mdiDotsHorizontal,
  mdiHelpCircleOutline,
  mdiLogout,
  mdiMagnify,
  mdiMagnifyScan,
  mdiSnake,
  mdiWeatherNight,
  mdiWeatherSunny,
  mdiWhiteBalanceSunny,
} from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDisplay } from 'vuetify';
import { theme } from '../plugins/vuetify.ts';
import { useRoundQueue } from '../offline/useRoundQueue.ts';
import { useSession } from '../stores/session.ts';
import { useLiveUpdates } from '../stores/useLiveUpdates.ts';
import FarmClock from './FarmClock.vue';
import { isTyping } from '../ui/keys.ts';
import MoreSheet from './MoreSheet.vue';
import UnsentDialog from './UnsentDialog.vue';

/** Places in the order of the work. */
const PLACES = [
  { to: '/today', title: 'Today', icon: mdiWhiteBalanceSunny },
  { to: '/season', title: 'Season', icon: mdiCalendarHeart },
  { to: '/bench', title: 'Bench', icon: mdiMagnifyScan },
  { to: '/rounds', title: 'Rounds', icon: mdiClipboardCheckOutline },
  { to: '/racks', title: 'Racks', icon: mdiBarn },
  { to: '/animals', title: 'Animals', icon: mdiSnake },
  { to: '/showcase', title: 'Showcase', icon: mdiEyeOutline },
  { to: '/genes', title: 'Genes', icon: mdiDna },
];

/** On a phone these lie at the thumb, with the search between them; the others under More. */
const AT_THUMB = ['/today', '/rounds', '/bench'];
const [today, rounds, bench] = AT_THUMB.map((to) => PLACES.find((place) => place.to === to)!);
const others = PLACES.filter(({ to }) => !AT_THUMB.includes(to));

// Fetched when they are first opened: the search knows all genes.
const HelpDialog = defineAsyncComponent(() => import('../features/help/HelpDialog.vue'));
const SearchDialog = defineAsyncComponent(() => import('../features/search/SearchDialog.vue'));
const session = useSession();
const route = useRoute();
const router = useRouter();
const { smAndDown } = useDisplay();
useLiveUpdates();
const isNight = computed(() => theme.value === 'night');
const isHere = (to: string): boolean => route.path === to || route.path.startsWith(`${to}/`);

function toggleTheme(): void {
  theme.value = isNight.value ? 'day' : 'night';
}
const isSearching = ref(false);
const isMoreOpen = ref(false);
const isHelpOpen = ref(false);
/** Ctrl+K and a slash search, `?` helps, a number goes to a place. Typing in a field is left alone. */
function onKey(event: KeyboardEvent): void {
  const hasModifier = event.ctrlKey || event.metaKey || event.altKey;
  const isSearch =
    ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') ||
    (event.key === '/' && !hasModifier && !isTyping(event.target));
  if (isSearch) event.preventDefault();
  // A dialog is answered first.
  if (document.querySelector('.v-dialog.v-overlay--active')) return;
  if (isSearch) isSearching.value = true;
  if (hasModifier || isTyping(event.target)) return;
  if (event.key === '?') isHelpOpen.value = true;
  const place = PLACES[Number(event.key) - 1];
  if (place) void router.push(place.to);
}
useEventListener('keydown', onKey);
// What was entered without a connection goes out wherever one is, not only on the round.
const queue = useRoundQueue();
void queue.start();
const asksToLeave = ref(false);
/** What was not sent yet would be gone: that is said first. */
function leave(): void {
  if (queue.entries.length > 0) asksToLeave.value = true;
  else void signOut();
}
async function signOut(): Promise<void> {
  asksToLeave.value = false;
  await session.signOut();
  await router.push('/sign-in');
}
</script>

<template>
  <v-app-bar flat height="60" color="background" class="shell">
    <router-link to="/today" class="mark" aria-label="Karyotome, to Today">
      <img src="/mark.svg" alt="" width="30" height="30" />
      <span v-if="!smAndDown" class="display">Karyotome</span>
    </router-link>
    <nav v-if="!smAndDown" class="bands" aria-label="Places">
      <router-link
        v-for="place in PLACES"
        :key="place.to"
        :to="place.to"
        class="band"
        :class="{ here: isHere(place.to) }"
        :aria-current="isHere(place.to) ? 'page' : undefined"
      >
        {{ place.title }}
      </router-link>
    </nav>
    <span v-else class="display phone-title">{{ session.settings?.name }}</span>
    <v-spacer />
    <span v-if="!smAndDown" class="small soft collection">{{ session.settings?.name }}</span>
    <FarmClock />
    <v-btn
      v-if="!smAndDown"
      :icon="mdiMagnify"
      aria-label="Search and enter"
      title="Search and enter (Ctrl+K, or /)"
      variant="text"
      @click="isSearching = true"
    />
    <v-btn
      v-if="!smAndDown"
      :icon="isNight ? mdiWeatherSunny : mdiWeatherNight"
      :aria-label="isNight ? 'Day theme' : 'Night theme'"
      variant="text"
      @click="toggleTheme"
    />
    <v-btn
      v-if="!smAndDown"
      :icon="mdiHelpCircleOutline"
      aria-label="Help"
      title="Help (?)"
      variant="text"
      @click="isHelpOpen = true"
    />
    <v-btn v-if="!smAndDown" :icon="mdiCogOutline" to="/settings" aria-label="Settings" variant="text" />
    <v-btn v-if="!smAndDown" :icon="mdiLogout" aria-label="Sign out" variant="text" @click="leave" />
  </v-app-bar>
  <SearchDialog v-if="isSearching" @close="isSearching = false" />
  <MoreSheet
    v-if="isMoreOpen"
    :places="others"
    :is-night="isNight"
    @close="isMoreOpen = false"
    @theme="toggleTheme"
    @help="isHelpOpen = true"
    @leave="leave"
  />
  <HelpDialog v-if="isHelpOpen" :places="PLACES" @close="isHelpOpen = false" />
  <UnsentDialog v-if="asksToLeave" @stay="asksToLeave = false" @leave="signOut" />
  <v-bottom-navigation v-if="smAndDown" grow height="60" :model-value="route.path">
    <v-btn
      v-for="place in [today!, rounds!]"
      :key="place.to"
      :to="place.to"
      class="foot"
      :active="isHere(place.to)"
    >
      <v-icon :icon="place.icon" />
      <span>{{ place.title }}</span>
    </v-btn>
    <v-btn class="foot" :active="false" @click="isSearching = true">
      <v-icon :icon="mdiMagnify" />
      <span>Search</span>
    </v-btn>
    <v-btn :to="bench!.to" class="foot" :active="isHere(bench!.to)">
      <v-icon :icon="bench!.icon" />
      <span>{{ bench!.title }}</span>
    </v-btn>
    <v-btn
      class="foot"
      :active="isMoreOpen || others.some(({ to }) => isHere(to))"
      @click="isMoreOpen = true"
    >
      <v-icon :icon="mdiDotsHorizontal" />
      <span>More</span>
    </v-btn>
  </v-bottom-navigation>
</template>

<style scoped>
.shell {
  border-bottom: 1px solid var(--hair);
}
.mark.mark {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0 20px 0 16px;
  color: inherit;
  text-decoration: none;
  font-size: 1.15rem;
}
/* The places lie on one strand, like bands on a chromosome: where one is, the band is stained. */
.bands {
  display: flex;
  height: 36px;
  border: 1.5px solid rgb(var(--v-theme-primary));
  border-radius: 18px;
  overflow: hidden;
}
.band.band {
  display: flex;
  align-items: center;
  padding: 0 16px;
  color: rgb(var(--v-theme-on-background));
  text-decoration: none;
  font-weight: 560;
}
.band.band + .band.band {
  border-left: 1.5px solid rgb(var(--v-theme-primary));
}
.band:hover {
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 12%, transparent);
}
.band.band.here {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
}
.band:focus-visible {
  outline: 2px solid rgb(var(--v-theme-secondary));
  outline-offset: -4px;
}
.collection {
  margin-right: 8px;
}
.phone-title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.foot {
  min-width: 0 !important;
  padding: 0 2px;
  font-size: 0.75rem;
}
</style>
