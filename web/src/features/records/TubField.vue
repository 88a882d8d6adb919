<script setup lang="ts">
import { placeWords } from '@karyotome/words';
import { computed, ref } from 'vue';
import { useTubs } from '../../stores/queries.ts';

/** Chooses a tub, each with the kind of enclosure it is: a free one, or where it is wanted one with an animal in it. */
withDefaults(defineProps<{ label?: string; errors?: string[] }>(), { label: 'To tub', errors: () => [] });
const id = defineModel<string | null>({ required: true });
const taken = ref(false);
const { data } = useTubs(taken);
const items = computed(() =>
  (data.value ?? [])
    .map((tub) => ({
      value: tub.tubId,
      title: placeWords(tub),
      subtitle: `${tub.kind}, ${tub.room}, ${tub.isFree ? 'free' : `with ${tub.animals.join(', ')}`}`,
      isFree: tub.isFree,
    }))
    .toSorted((a, b) => Number(b.isFree) - Number(a.isFree)),
);
</script>

<template>
  <div>
    <v-autocomplete
      v-model="id"
      :label="label"
      :items="items"
      item-props
      :error-messages="errors"
      no-data-text="No tub fits: add a rack under Racks"
      clearable
    />
    <v-checkbox v-model="taken" label="Also tubs with an animal in them" density="compact" hide-details />
  </div>
</template>
