<script setup lang="ts">
import type { BenchView } from '@karyotome/contract';
import { computed } from 'vue';
import { api } from '../../api/resources.ts';
import { oddsWords } from '../../format/format.ts';

/** The parents above their clutch: what they are, and what is uncertain about them. */
const props = defineProps<{ bench: BenchView }>();
const parents = computed(() => [props.bench.dam, ...props.bench.sires]);
</script>

<template>
  <div class="parents">
    <router-link
      v-for="parent in parents"
      :key="parent.id"
      :to="`/animals/${parent.id}`"
      class="plain parent"
    >
      <img
        v-if="parent.pictureIds[0]"
        :src="api.thumbUrl(parent.pictureIds[0])"
        :alt="`Picture of ${parent.number}`"
        class="thumb"
      />
      <span class="words">
        <span
          ><strong>{{ parent.role === 'dam' ? '♀' : '♂' }} {{ parent.number }}</strong> {{ parent.name }}
          <span v-if="parent.role === 'sire' && parent.p < 1" class="small soft"
            >{{ oddsWords(parent.p) }} before any gene</span
          ></span
        >
        <span class="small">{{ parent.label }}</span>
      </span>
    </router-link>
  </div>
</template>

<style scoped>
.parents {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 10px;
}
.parent {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 12px;
  border: 1px solid var(--hair);
  border-radius: 12px;
  background: rgb(var(--v-theme-surface));
}
.thumb {
  width: 72px;
  height: 54px;
  object-fit: cover;
  border-radius: 8px;
}
.words {
  display: grid;
}
@media (width < 600px) {
  .parents {
    grid-template-columns: 1fr;
  }
  .thumb {
    width: 56px;
    height: 42px;
  }
}
</style>
