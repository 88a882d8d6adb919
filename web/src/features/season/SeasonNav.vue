<script setup lang="ts">
import RoomsNav from '../../ui/RoomsNav.vue';

const ROOMS = [
  { to: '/season', title: 'Board' },
  { to: '/season/planner', title: 'Planner' },
  { to: '/season/projects', title: 'Projects' },
  { to: '/season/incubators', title: 'Incubators' },
  { to: '/season/past', title: 'Past seasons' },
] as const;
</script>

<template>
  <RoomsNav label="Season" :rooms="ROOMS" />
</template>
