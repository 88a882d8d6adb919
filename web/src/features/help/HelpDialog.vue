<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import TradeWords from '../../ui/TradeWords.vue';
import { helpAt } from './help-pages.ts';

/** What the place that one is in is for, its keys, and what one may not have noticed. */
defineProps<{ places: readonly { readonly to: string; readonly title: string }[] }>();
const emit = defineEmits<{ close: [] }>();
const route = useRoute();
const page = computed(() => helpAt(route.path));
</script>

<template>
  <v-dialog :model-value="true" max-width="560" scrollable @update:model-value="emit('close')">
    <v-card :title="page?.title ?? 'Keys'">
      <v-card-text class="stack">
        <template v-if="page">
          <p>{{ page.purpose }}</p>
          <ul class="hints">
            <li v-for="hint in page.hints" :key="hint">{{ hint }}</li>
          </ul>
        </template>
        <template v-if="page?.words">
          <h3>Words of the trade</h3>
          <TradeWords :words="page.words" />
        </template>
        <h3>Keys</h3>
        <dl class="keys">
          <template v-for="[keys, act] in page?.keys ?? []" :key="keys">
            <dt>{{ keys }}</dt>
            <dd>{{ act }}</dd>
          </template>
          <dt>1 to {{ places.length }}</dt>
          <dd>{{ places.map(({ title }) => title).join(', ') }}</dd>
          <dt>/, Ctrl+K</dt>
          <dd>search, and enter by typing</dd>
          <dt>?</dt>
          <dd>this page</dd>
        </dl>
      </v-card-text>
      <v-card-actions><v-spacer /><v-btn @click="emit('close')">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.hints {
  display: grid;
  gap: 6px;
  padding-left: 20px;
}
.keys {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 6px 12px;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
