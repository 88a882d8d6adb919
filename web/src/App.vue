<script setup lang="ts">
import { watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useTheme } from 'vuetify';
import AppShell from './layout/AppShell.vue';
import NoticeBar from './layout/NoticeBar.vue';
import { theme } from './plugins/vuetify.ts';
import { useSession } from './stores/session.ts';

const route = useRoute();
const router = useRouter();
const session = useSession();
// Chosen in any window of this device, it is there in all of them.
const { change } = useTheme();
watch(theme, (name) => void change(name));
// A session that ended elsewhere leads to the sign-in, and back to this page after it.
watch(
  () => session.view,
  (view, before) => {
    if (before && !view && !route.meta.open)
      void router.push({ path: '/sign-in', query: { to: route.fullPath } });
  },
);
</script>

<template>
  <v-app>
    <AppShell v-if="session.view && !route.meta.open" />
    <v-main>
      <router-view v-slot="{ Component }">
        <component :is="Component" :key="route.path" />
      </router-view>
    </v-main>
    <NoticeBar />
  </v-app>
</template>
