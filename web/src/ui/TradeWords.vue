<script setup lang="ts">
import { TRADE_WORDS, type TradeWord } from '@karyotome/words';
import { ref } from 'vue';

/** Words of the trade: touched, each says what it means. */
defineProps<{ words: readonly TradeWord[] }>();
const open = ref<TradeWord | null>(null);
</script>

<template>
  <div class="stack">
    <div class="row">
      <v-chip
        v-for="word in words"
        :key="word"
        label
        :variant="open === word ? 'flat' : 'tonal'"
        :aria-expanded="open === word"
        @click="open = open === word ? null : word"
        >{{ word }}</v-chip
      >
    </div>
    <p v-if="open" role="status">
      <strong>{{ open }}</strong>: {{ TRADE_WORDS[open] }}
    </p>
  </div>
</template>
