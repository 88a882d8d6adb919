<script setup lang="ts">
/** Several of a list, each with its box. */
defineProps<{
  legend: string;
  items: readonly { readonly value: string; readonly title: string }[];
  errors?: readonly string[];
}>();
const chosen = defineModel<string[]>({ required: true });
</script>

<template>
  <fieldset class="list">
    <legend class="small">{{ legend }}</legend>
    <v-checkbox
      v-for="item in items"
      :key="item.value"
      v-model="chosen"
      :value="item.value"
      :label="item.title"
      density="compact"
      hide-details
    />
    <p v-for="error in errors" :key="error" class="small error">{{ error }}</p>
  </fieldset>
</template>

<style scoped>
.list {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(var(--item, 120px), 1fr));
  margin: 0;
  padding: 4px 8px;
  border: 1px solid var(--hair);
  border-radius: 10px;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
