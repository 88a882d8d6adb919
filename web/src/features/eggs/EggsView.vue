<script setup lang="ts">
import { useRoute } from 'vue-router';
import { useClutch } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';
import EggDesk from './EggDesk.vue';

const route = useRoute();
const { data, status, error, refetch } = useClutch(() => String(route.params['id']));
</script>

<template>
  <div class="place">
    <StateBlock :status="status" :error="error" @retry="refetch()">
      <EggDesk v-if="data" :key="data.id" :clutch="data" />
    </StateBlock>
  </div>
</template>
