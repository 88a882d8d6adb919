<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue';
import { clocksDiffer, farmClock, farmToday } from '../format/farm-day.ts';
import { dayWords } from '../format/format.ts';
import { useSession } from '../stores/session.ts';

/** The farm's time, where this device shows another: all days here are the farm's. */
const session = useSession();
const now = ref(Date.now());
const timer = setInterval(() => (now.value = Date.now()), 20_000);
onBeforeUnmount(() => clearInterval(timer));
const shown = computed(() => {
  const zone = session.settings?.farmZone;
  return zone !== undefined && clocksDiffer()
    ? {
        time: farmClock(new Date(now.value).toISOString()),
        place: zone.split('/').at(-1)!.replaceAll('_', ' '),
      }
    : null;
});
</script>

<template>
  <span
    v-if="session.view?.daysAhead"
    class="farm-clock small"
    title="This server’s clock is ahead, for trying out"
  >
    Trying out <strong>{{ dayWords(farmToday()) }}</strong>
  </span>
  <router-link
    v-if="shown"
    to="/settings"
    class="farm-clock small"
    :title="`This device shows another time. All days are the farm's: ${shown.time}`"
  >
    Farm <strong>{{ shown.time.slice(11) }}</strong> <span class="place-name">{{ shown.place }}</span>
  </router-link>
</template>

<style scoped>
.farm-clock {
  padding: 4px 10px;
  border: 1px solid var(--hair);
  border-radius: 14px;
  color: inherit;
  text-decoration: none;
  white-space: nowrap;
}
@media (width < 960px) {
  .place-name {
    display: none;
  }
}
</style>
