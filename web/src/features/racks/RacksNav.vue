<script setup lang="ts">
import RoomsNav from '../../ui/RoomsNav.vue';

const ROOMS = [
  { to: '/racks', title: 'Room' },
  { to: '/racks/climate', title: 'Climate' },
  { to: '/racks/forecast', title: 'Will it last' },
  { to: '/racks/moves', title: 'What became of moves' },
  { to: '/racks/ladders', title: 'Ladders' },
] as const;
</script>

<template>
  <RoomsNav label="Racks" :rooms="ROOMS" />
</template>
