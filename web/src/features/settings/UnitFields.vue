<script setup lang="ts">
/** In which units the farm weighs and reads thermometers. */
const massUnit = defineModel<'g' | 'oz'>('massUnit', { required: true });
const temperatureUnit = defineModel<'C' | 'F'>('temperatureUnit', { required: true });
</script>

<template>
  <div class="fields">
    <v-select
      v-model="massUnit"
      label="Weights"
      :items="[
        { value: 'g', title: 'Grams' },
        { value: 'oz', title: 'Ounces' },
      ]"
    />
    <v-select
      v-model="temperatureUnit"
      label="Temperatures"
      :items="[
        { value: 'C', title: 'Celsius' },
        { value: 'F', title: 'Fahrenheit' },
      ]"
    />
  </div>
</template>
