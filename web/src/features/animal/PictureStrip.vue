<script setup lang="ts">
import { BIN_DAYS, type AnimalView } from '@karyotome/contract';
import { mdiCameraPlusOutline, mdiClose, mdiCrop } from '@mdi/js';
import { computed, defineAsyncComponent, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

const props = defineProps<{ animal: AnimalView; mayRecord: boolean }>();
const CropDialog = defineAsyncComponent(() => import('./CropDialog.vue'));
const OverTimeDialog = defineAsyncComponent(() => import('./OverTimeDialog.vue'));
const isOverTime = ref(false);
const notices = useNotices();
const cropping = ref<string | null>(null);
const cropped = computed(() => props.animal.pictures.find(({ id }) => id === cropping.value));
const input = ref<HTMLInputElement | null>(null);
const adding = useWrite((file: File) => api.addPicture(props.animal.id, file, ''));
const removing = useWrite(api.deletePicture);
function chosen(event: Event): void {
  void add((event.target as HTMLInputElement).files ?? []);
}
function dropped(event: DragEvent): void {
  if (props.mayRecord) void add(event.dataTransfer?.files ?? []);
}
async function add(files: Iterable<File>): Promise<void> {
  for (const file of files) {
    const sent = await adding.run(file);
    if (!sent) return notices.warn(`${file.name}: ${adding.errorsOf('picture')[0] ?? adding.message.value}`);
    notices.say('Picture added', async () => void (await removing.run(sent.value.id)));
  }
  if (input.value) input.value.value = '';
}
async function remove(id: string): Promise<void> {
  if (await removing.run(id))
    notices.say(`Picture deleted: an owner can restore it for ${BIN_DAYS} days, in Settings`);
  else notices.warn(removing.message.value ?? 'The picture could not be deleted');
}
</script>

<template>
  <v-card class="box" @dragover.prevent @drop.prevent="dropped">
    <div class="row">
      <h2>Pictures</h2>
      <v-spacer />
      <v-btn variant="text" @click="isOverTime = true">Over time…</v-btn>
      <v-btn
        v-if="mayRecord"
        variant="outlined"
        :prepend-icon="mdiCameraPlusOutline"
        :loading="adding.busy.value"
        @click="input?.click()"
        >Add</v-btn
      >
      <input
        ref="input"
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        hidden
        aria-label="Picture files"
        @change="chosen"
      />
    </div>
    <p v-if="animal.pictures.length === 0" class="soft small">
      One on a plain ground, and again after sheds. Drop them here, or add them. Place and camera are taken
      out of every copy that is shown.
    </p>
    <div class="strip">
      <figure v-for="picture in animal.pictures" :key="picture.id">
        <img
          :src="api.thumbUrl(picture.id, JSON.stringify(picture.edit ?? ''))"
          :alt="picture.caption || `Picture of ${animal.number}`"
          loading="lazy"
        />
        <figcaption class="small">
          {{ picture.isDrawing ? 'Drawing' : '' }} {{ picture.caption }}
          <a :href="api.pictureUrl(picture.id)" target="_blank">Large</a> ·
          <a :href="api.originalUrl(picture.id)">Original</a>
        </figcaption>
        <v-btn
          v-if="mayRecord && !picture.isDrawing"
          :icon="mdiCrop"
          size="x-small"
          class="crop"
          aria-label="Turn and crop"
          @click="cropping = picture.id"
        />
        <v-btn
          v-if="mayRecord"
          :icon="mdiClose"
          size="x-small"
          class="remove"
          aria-label="Remove picture"
          @click="remove(picture.id)"
        />
      </figure>
    </div>
    <OverTimeDialog v-if="isOverTime" :animal="animal" @close="isOverTime = false" />
    <CropDialog v-if="cropped" :picture="cropped" @close="cropping = null" />
  </v-card>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 10px;
}
figure {
  position: relative;
  margin: 0;
}
img {
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 10px;
}
.crop {
  position: absolute;
  top: 6px;
  left: 6px;
}
.remove {
  position: absolute;
  top: 6px;
  right: 6px;
}
</style>
