<script setup lang="ts">
import { computed } from 'vue';
import { useRacks } from '../../stores/queries.ts';

/** Chooses a tub; free ones first, each with the kind of enclosure it is. */
defineProps<{ errors?: string[] }>();
const id = defineModel<string | null>({ required: true });
const { data } = useRacks();
const items = computed(() =>
  (data.value ?? [])
    .flatMap((rack) =>
      rack.tubs.map((tub) => ({
        value: tub.id,
        title: `${rack.name} ${tub.level}-${tub.slot}`,
        subtitle: `${rack.step.name}, ${rack.room}${tub.animals.length > 0 ? `, with ${tub.animals.map((a) => a.number).join(', ')}` : ', free'}`,
        taken: tub.animals.length,
      })),
    )
    .toSorted((a, b) => a.taken - b.taken),
);
</script>

<template>
  <v-autocomplete
    v-model="id"
    label="To tub"
    :items="items"
    item-props
    :error-messages="errors ?? []"
    no-data-text="No tub fits: add a rack under Racks"
    clearable
  />
</template>
