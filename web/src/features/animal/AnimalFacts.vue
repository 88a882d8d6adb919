<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { preyWords } from '@karyotome/words';
import { ageWords, appetiteWords, dayWords, massWords, statusWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

/** An animal in a line: age, weight, place, status, appetite, and what comes next. */
defineProps<{ animal: AnimalView }>();
</script>

<template>
  <p class="facts">
    <span v-if="animal.hatchedOn"
      >Hatched {{ dayWords(animal.hatchedOn) }}, {{ ageWords(animal.hatchedOn) }}</span
    >
    <span v-if="animal.massG !== null"
      >{{ massWords(animal.massG) }} on {{ dayWords(animal.weighedOn!) }}</span
    >
    <span>{{
      animal.tub ? `${animal.tub.room}, ${animal.tub.rack} ${animal.tub.level}-${animal.tub.slot}` : 'no tub'
    }}</span>
    <span>{{ statusWords(animal.status) }}</span>
    <span>{{ appetiteWords(animal.appetite) }}</span>
    <span v-if="animal.inShed"
      ><strong>In shed ({{ animal.inShed.stage }}), day {{ animal.inShed.days }}</strong></span
    >
    <span v-else-if="animal.nextMeal"
      >next meal {{ dayWords(animal.nextMeal.dueOn) }}: {{ preyWords(animal.nextMeal, reader()) }}</span
    >
  </p>
</template>

<style scoped>
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin-bottom: 12px;
}
</style>
