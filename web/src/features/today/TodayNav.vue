<script setup lang="ts">
import RoomsNav from '../../ui/RoomsNav.vue';

const ROOMS = [
  { to: '/today', title: 'List' },
  { to: '/today/feeding', title: 'Feeding night' },
  { to: '/today/sheds', title: 'Sheds' },
  { to: '/today/health', title: 'Health' },
  { to: '/today/plans', title: 'Plans and rules' },
] as const;
</script>

<template>
  <RoomsNav label="Today" :rooms="ROOMS" />
</template>
