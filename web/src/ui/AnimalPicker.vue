<script setup lang="ts">
import type { AnimalSummary } from '@karyotome/contract';
import { computed } from 'vue';
import { sexSign } from '../format/format.ts';

/** Chooses one animal by number, name or genes. */
const props = defineProps<{
  label: string;
  animals: readonly AnimalSummary[];
  sex?: 'female' | 'male';
  errors?: string[];
  clearable?: boolean;
}>();
const id = defineModel<string | null>({ required: true });
const items = computed(() =>
  props.animals
    .filter(
      (animal) =>
        (!props.sex || animal.sex === props.sex) && animal.status !== 'died' && animal.status !== 'mistaken',
    )
    .map((animal) => ({
      value: animal.id,
      title: `${animal.number}${animal.name ? ` ${animal.name}` : ''}`,
      subtitle: `${sexSign(animal.sex)} ${animal.label}`,
      search: `${animal.number} ${animal.name ?? ''} ${animal.label}`.toLowerCase(),
    })),
);
const matches = (_title: string, query: string, item?: { raw: { search: string } }): boolean =>
  item?.raw.search.includes(query.toLowerCase()) ?? false;
</script>

<template>
  <v-autocomplete
    v-model="id"
    :label="label"
    :items="items"
    :custom-filter="matches"
    item-props
    :clearable="clearable ?? false"
    :error-messages="errors ?? []"
    auto-select-first
    no-data-text="No animal fits"
  />
</template>
