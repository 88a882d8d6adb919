<script setup lang="ts">
import { useRoute } from 'vue-router';

/** The rooms of a place, one beside the other. What lies within a room is there too; the first is the place itself. */
const props = defineProps<{
  label: string;
  rooms: readonly { readonly to: string; readonly title: string }[];
}>();
const route = useRoute();
const isHere = (to: string): boolean =>
  route.path === to || (to !== props.rooms[0]!.to && route.path.startsWith(`${to}/`));
</script>

<template>
  <nav class="rooms" :aria-label="label">
    <router-link
      v-for="room in rooms"
      :key="room.to"
      :to="room.to"
      class="room"
      :class="{ here: isHere(room.to) }"
      :aria-current="isHere(room.to) ? 'page' : undefined"
      >{{ room.title }}</router-link
    >
  </nav>
</template>

<style scoped>
.rooms {
  display: flex;
  gap: 4px;
  margin-right: auto;
  overflow-x: auto;
}
.room.room {
  display: flex;
  align-items: center;
  min-height: 40px;
  padding: 0 14px;
  border-radius: 8px;
  color: inherit;
  font-weight: 560;
  text-decoration: none;
  white-space: nowrap;
}
.room:hover {
  background: rgb(var(--v-theme-surface-light));
}
.room.room.here {
  background: rgb(var(--v-theme-surface-light));
  box-shadow: inset 0 -3px rgb(var(--v-theme-secondary));
}
@media (width < 600px) {
  .rooms {
    order: 3;
    width: 100%;
  }
  .room.room {
    min-height: 44px;
    padding: 0 12px;
  }
}
</style>
