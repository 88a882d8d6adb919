<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { dayWords, massWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { useGrownLooks } from '../../stores/queries.ts';
import { picturesInTime, scalesOf } from './picture-stages.ts';

/** One animal over time, its pictures beside one another; and what it may look like grown. */
const props = defineProps<{ animal: AnimalView }>();
const emit = defineEmits<{ close: [] }>();
const { data: grown } = useGrownLooks(() => props.animal.id);
const pictures = computed(() => picturesInTime(props.animal));
const atOneScale = ref(false);
const hasScale = computed(() => pictures.value.filter(({ massG }) => massG !== null).length > 1);
const scales = computed(() => (atOneScale.value ? scalesOf(pictures.value) : pictures.value.map(() => 1)));
const PICTURE_PX = 240;
</script>

<template>
  <v-dialog :model-value="true" max-width="1180" @update:model-value="emit('close')">
    <v-card :title="`${animal.number} over time`">
      <v-card-text class="stack">
        <p v-if="pictures.length === 0" class="soft">No picture with a day yet.</p>
        <v-switch
          v-if="hasScale"
          v-model="atOneScale"
          label="At one scale, by the weight of that time"
          color="primary"
          density="compact"
          hide-details
        />
        <div class="line">
          <figure v-for="(one, i) in pictures" :key="one.picture.id">
            <div class="frame" :style="{ height: `${PICTURE_PX}px` }">
              <a :href="api.pictureUrl(one.picture.id)" target="_blank"
                ><img
                  :src="api.pictureUrl(one.picture.id)"
                  :alt="`${animal.number}, ${one.stage}`"
                  :style="{ height: `${PICTURE_PX * scales[i]!}px` }"
                  loading="lazy"
              /></a>
            </div>
            <figcaption class="small">
              <strong>{{ one.stage }}</strong>
              <template v-if="one.ageDays !== null">, {{ reader().age(Math.max(0, one.ageDays)) }}</template>
              <br />{{ dayWords(one.takenOn)
              }}<template v-if="one.massG !== null">, {{ massWords(one.massG) }}</template>
              <template v-if="one.picture.isDrawing"> (drawing)</template>
            </figcaption>
          </figure>
        </div>
        <template v-if="grown && grown.length > 0">
          <h3>Grown ones of the same look</h3>
          <p class="small soft">
            Older animals of yours that show the same genes: what it may look like. Lines differ, and so do
            animals.
          </p>
          <div class="line">
            <figure v-for="look in grown" :key="look.pictureId">
              <router-link :to="`/animals/${look.animal.id}`"
                ><img
                  :src="api.thumbUrl(look.pictureId)"
                  :alt="`${look.animal.number}, grown`"
                  loading="lazy"
                  class="look"
              /></router-link>
              <figcaption class="small">
                <strong>{{ look.animal.number }}</strong>, {{ reader().age(look.ageDays) }}
                <template v-if="look.isDrawing"> (drawing)</template>
              </figcaption>
            </figure>
          </div>
        </template>
        <p v-else-if="grown" class="small soft">
          None of your older animals that show the same genes has a picture yet.
        </p>
      </v-card-text>
      <v-card-actions><v-btn @click="emit('close')">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.line {
  display: flex;
  gap: 14px;
  overflow-x: auto;
  padding-bottom: 6px;
}
figure {
  margin: 0;
  flex: none;
}
.frame {
  display: flex;
  align-items: flex-end;
}
.frame img {
  display: block;
  border-radius: 8px;
}
.look {
  height: 150px;
  border-radius: 8px;
}
</style>
