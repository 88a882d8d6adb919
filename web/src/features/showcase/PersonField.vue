<script setup lang="ts">
import { computed, ref } from 'vue';
import { usePersons } from '../../stores/queries.ts';
import PersonDialog from './PersonDialog.vue';

/** Chooses somebody of the address book, or enters a new one. */
defineProps<{ label: string; errors?: string[]; clearable?: boolean }>();
const id = defineModel<string | null>({ required: true });
const { data } = usePersons();
const items = computed(() =>
  (data.value ?? []).flatMap(({ id: value, name, email }) =>
    name === null ? [] : [{ value, title: name, subtitle: email ?? '' }],
  ),
);
const isNew = ref(false);
</script>

<template>
  <div class="person wide">
    <v-autocomplete
      v-model="id"
      :label="label"
      :items="items"
      item-props
      :clearable="clearable ?? false"
      :error-messages="errors ?? []"
      auto-select-first
      no-data-text="Nobody of this name yet"
    />
    <v-btn variant="outlined" @click="isNew = true">New person</v-btn>
    <PersonDialog v-if="isNew" :person="null" @close="isNew = false" @added="id = $event" />
  </div>
</template>

<style scoped>
.person {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
.person .v-btn {
  height: 48px;
}
</style>
