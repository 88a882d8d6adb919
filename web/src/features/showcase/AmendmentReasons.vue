<script setup lang="ts">
import { useAmendment } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';

/** The evidence for which the next statement would say something else. */
const props = defineProps<{ animalId: string }>();
const { data, status, error, refetch } = useAmendment(() => props.animalId);
</script>

<template>
  <StateBlock :status="status" :error="error" @retry="refetch()">
    <p v-for="change in data?.changes" :key="change.locus" class="small">
      {{ change.from }} becomes {{ change.to }}. {{ change.because }}
    </p>
  </StateBlock>
</template>
