<script setup lang="ts">
import { computed } from 'vue';
import { useSession } from '../../stores/session.ts';
import RoomsNav from '../../ui/RoomsNav.vue';

const session = useSession();
/** Who buys is nobody's business but of those who record. */
const rooms = computed(() => [
  { to: '/showcase', title: 'Published' },
  ...(session.maySell
    ? [
        { to: '/showcase/sales', title: 'Sales' },
        { to: '/showcase/waiting', title: 'Waiting' },
        { to: '/showcase/inbox', title: 'Inbox' },
        { to: '/showcase/letters', title: 'Letters' },
        { to: '/showcase/people', title: 'People' },
      ]
    : []),
]);
</script>

<template>
  <RoomsNav label="Showcase" :rooms="rooms" />
</template>
