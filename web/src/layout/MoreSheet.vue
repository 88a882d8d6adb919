<script setup lang="ts">
import { mdiCogOutline, mdiHelpCircleOutline, mdiLogout, mdiWeatherNight, mdiWeatherSunny } from '@mdi/js';

/** On a phone: the places that do not lie at the thumb, and what the bar above has elsewhere. */
defineProps<{
  places: readonly { readonly to: string; readonly title: string; readonly icon: string }[];
  isNight: boolean;
}>();
const emit = defineEmits<{ close: []; theme: []; help: []; leave: [] }>();
function help(): void {
  emit('close');
  emit('help');
}
function leave(): void {
  emit('close');
  emit('leave');
}
</script>

<template>
  <v-bottom-sheet :model-value="true" aria-label="More places" @update:model-value="emit('close')">
    <v-card>
      <nav class="more" aria-label="More places">
        <v-btn
          v-for="place in [...places, { to: '/settings', title: 'Settings', icon: mdiCogOutline }]"
          :key="place.to"
          :to="place.to"
          :prepend-icon="place.icon"
          variant="text"
          size="large"
          class="one"
          @click="emit('close')"
          >{{ place.title }}</v-btn
        >
        <v-btn
          :prepend-icon="isNight ? mdiWeatherSunny : mdiWeatherNight"
          variant="text"
          size="large"
          class="one"
          @click="emit('theme')"
          >{{ isNight ? 'Day theme' : 'Night theme' }}</v-btn
        >
        <v-btn :prepend-icon="mdiHelpCircleOutline" variant="text" size="large" class="one" @click="help"
          >Help</v-btn
        >
        <v-btn :prepend-icon="mdiLogout" variant="text" size="large" class="one" @click="leave"
          >Sign out</v-btn
        >
      </nav>
    </v-card>
  </v-bottom-sheet>
</template>

<style scoped>
.more {
  display: grid;
  grid-template-columns: 1fr 1fr;
  padding: 12px;
  padding-bottom: calc(12px + env(safe-area-inset-bottom));
}
.one {
  justify-content: flex-start;
  min-height: 56px;
}
</style>
