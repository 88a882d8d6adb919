<script setup lang="ts">
import { hasAllWords, STATUSES, type AnimalSummary } from '@karyotome/contract';
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { sexSign } from '../format/format.ts';
import { useAnimals, useAnimalSummary } from '../stores/queries.ts';

type Pickable = Pick<AnimalSummary, 'id' | 'number' | 'name' | 'sex' | 'label'>;

/** Chooses one animal by number, name or genes: of the collection, or of those that are given. */
const props = defineProps<{
  label: string;
  among?: readonly Pickable[];
  sex?: 'female' | 'male';
  errors?: string[];
  clearable?: boolean;
}>();
const id = defineModel<string | null>({ required: true });
const emit = defineEmits<{ picked: [animal: Pickable] }>();

const SETTLED_MS = 200;
const ALIVE = STATUSES.filter((status) => status !== 'died' && status !== 'mistaken').join(',');
const search = ref('');
const settled = refDebounced(search, SETTLED_MS);
const { data: chosen } = useAnimalSummary(() => (props.among ? null : id.value));
/** What stands in the field once an animal is chosen is no question. */
const asked = computed(() =>
  chosen.value && settled.value === titleOf(chosen.value) ? '' : settled.value.trim(),
);
const { data: parts } = useAnimals(
  () => ({
    status: ALIVE,
    ...(props.sex ? { sex: props.sex } : {}),
    ...(asked.value ? { search: asked.value } : {}),
  }),
  () => !props.among,
);
const found = computed((): readonly Pickable[] => {
  if (props.among) return props.among.filter(({ sex }) => !props.sex || sex === props.sex);
  const animals = (parts.value ?? []).flatMap(({ items }) => items);
  const { value: own } = chosen;
  return own && own.id === id.value && !animals.some((one) => one.id === own.id)
    ? [own, ...animals]
    : animals;
});
const items = computed(() =>
  found.value.map((animal) => ({
    value: animal.id,
    title: titleOf(animal),
    subtitle: `${sexSign(animal.sex)} ${animal.label}`,
    search: `${animal.number} ${animal.name ?? ''} ${animal.label}`,
  })),
);
// Also over what the server found: until it has answered, nobody is offered that does not fit.
const matches = (_title: string, query: string, item?: { raw: { search: string } }): boolean =>
  item !== undefined && hasAllWords(item.raw.search, query.trim());
watch(id, () => {
  const animal = found.value.find((one) => one.id === id.value);
  if (animal) emit('picked', animal);
});
function titleOf({ number, name }: Pickable): string {
  return `${number}${name ? ` ${name}` : ''}`;
}
</script>

<template>
  <v-autocomplete
    v-model="id"
    v-model:search="search"
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
