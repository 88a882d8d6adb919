<script setup lang="ts">
import { api } from '../../api/resources.ts';
import { momentDay, sexSign, statusWords } from '../../format/format.ts';
import { useShowcase } from '../../stores/queries.ts';
import StateBlock from '../../ui/StateBlock.vue';

const { data, status, error, refetch } = useShowcase();
</script>

<template>
  <div class="place">
    <div class="place-head"><h1>Showcase</h1></div>
    <StateBlock
      :status="status"
      :error="error"
      :is-empty="data?.length === 0"
      empty-title="Nothing is published"
      empty-text="Publish an animal from its own page. What buyers see, with what each claim rests on, is listed here."
      @retry="refetch()"
    >
      <template #first><v-btn color="primary" to="/animals">To the animals</v-btn></template>
      <div class="grid">
        <v-card v-for="line in data" :key="line.slug" class="card">
          <img
            v-if="line.animal.pictureId"
            :src="api.pictureUrl(line.animal.pictureId)"
            :alt="`Picture of ${line.animal.number}`"
          />
          <div class="text">
            <h2>{{ line.animal.number }} {{ sexSign(line.animal.sex) }} {{ line.animal.name }}</h2>
            <p>
              <strong>{{ line.animal.label }}</strong>
            </p>
            <p class="small soft">
              {{ statusWords(line.animal.status) }}, published {{ momentDay(line.publishedAt) }}
            </p>
            <div class="row">
              <v-btn variant="outlined" :to="`/p/${line.slug}`">As buyers see it</v-btn>
              <v-btn variant="text" :to="`/animals/${line.animal.id}`">The animal</v-btn>
            </div>
          </div>
        </v-card>
      </div>
    </StateBlock>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 16px;
}
.card img {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: cover;
}
.text {
  display: grid;
  gap: 8px;
  padding: 16px;
}
</style>
