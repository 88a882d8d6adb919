<script setup lang="ts">
import type { BenchView } from '@karyotome/contract';
import { mdiCameraOutline, mdiClose, mdiImagePlusOutline } from '@mdi/js';
import { computed, defineAsyncComponent, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { CARD, usePictureQueue, type QueuedPicture } from './usePictureQueue.ts';

/** Pictures of a clutch: from the camera or files, many at once, each put to its animal, and the clutch's card. */
const props = defineProps<{ bench: BenchView; animalId: string | null }>();
const emit = defineEmits<{ close: [] }>();
const PhotoBooth = defineAsyncComponent(() => import('./PhotoBooth.vue'));
const isBooth = ref(false);
const notices = useNotices();
const files = ref<HTMLInputElement | null>(null);
const camera = ref<HTMLInputElement | null>(null);
const isOver = ref(false);
const { queue, isSending, done, take, send, stop, again, drop } = usePictureQueue(
  props.bench.clutch.id,
  () => props.bench.hatchlings,
);
const removing = useWrite(api.deletePicture);
const items = computed(() => [
  ...props.bench.hatchlings.map(({ id, number }) => ({ value: id, title: number })),
  { value: CARD, title: 'the clutch’s card' },
]);
const waiting = computed(
  () => queue.value.filter(({ state, to }) => state === 'waiting' && to !== null).length,
);
const unassigned = computed(
  () => queue.value.filter(({ state, to }) => state === 'waiting' && to === null).length,
);
const kept = computed(() =>
  props.animalId
    ? (props.bench.hatchlings.find(({ id }) => id === props.animalId)?.pictureIds ?? [])
    : props.bench.cardPictureIds,
);
function chosen(event: Event): void {
  const input = event.target as HTMLInputElement;
  take(input.files ?? [], props.animalId);
  input.value = '';
}
function dropped(event: DragEvent): void {
  isOver.value = false;
  take(event.dataTransfer?.files ?? [], props.animalId);
}
async function sendAll(): Promise<void> {
  await send();
  const failed = queue.value.filter(({ state }) => state === 'failed').length;
  if (failed > 0)
    notices.warn(`${failed} ${failed === 1 ? 'picture was' : 'pictures were'} refused: see why beside each`);
  else notices.say(`${done.value} ${done.value === 1 ? 'picture' : 'pictures'} kept`);
}
/** Showing many large photographs would cost more than sending them: of those, only the ones that nobody owns yet. */
const FEW = 12;
function previewOf({ id, url, to }: QueuedPicture): string | null {
  if (id !== null) return api.thumbUrl(id);
  return url && (to === null || queue.value.length <= FEW) ? url : null;
}
const STATE_WORDS = { waiting: 'waits', sending: 'on its way', done: 'kept', failed: 'refused' } as const;
</script>

<template>
  <v-dialog :model-value="true" max-width="820" :persistent="isSending" @update:model-value="emit('close')">
    <v-card
      :title="
        animalId
          ? `Pictures of ${bench.hatchlings.find(({ id }) => id === animalId)?.number}`
          : `Pictures of clutch ${bench.clutch.name}`
      "
    >
      <v-card-text class="stack">
        <div
          class="drop"
          :class="{ over: isOver }"
          @dragover.prevent="isOver = true"
          @dragleave="isOver = false"
          @drop.prevent="dropped"
        >
          <p>Drop pictures here, or</p>
          <div class="row">
            <v-btn variant="outlined" :prepend-icon="mdiImagePlusOutline" @click="files?.click()"
              >Choose files</v-btn
            >
            <v-btn variant="outlined" :prepend-icon="mdiCameraOutline" @click="camera?.click()">Camera</v-btn>
            <v-btn v-if="!animalId" variant="outlined" @click="isBooth = true">One after another…</v-btn>
          </div>
          <p class="small soft">
            JPEG, PNG or WebP, up to 25 MB each. A number in a file’s name puts it to that hatchling. Place
            and camera are taken out of every copy that is shown; the original is kept for you alone.
          </p>
          <input
            ref="files"
            type="file"
            accept="image/jpeg,image/png,image/webp"
            multiple
            hidden
            aria-label="Picture files"
            @change="chosen"
          />
          <input
            ref="camera"
            type="file"
            accept="image/*"
            capture="environment"
            hidden
            aria-label="Camera"
            @change="chosen"
          />
        </div>
        <template v-if="queue.length > 0">
          <div v-if="isSending || done > 0" class="progress" role="status">
            <v-progress-linear
              :model-value="(done / queue.length) * 100"
              aria-label="Sending the pictures"
              height="8"
            />
            <span class="small num">{{ done }} of {{ queue.length }}</span>
          </div>
          <p v-if="unassigned > 0" class="small warn">
            {{ unassigned }} {{ unassigned === 1 ? 'belongs' : 'belong' }} to nobody yet: say whose beside
            each.
          </p>
          <ul class="queue">
            <li v-for="picture in queue" :key="picture.file.name + picture.file.lastModified">
              <img
                v-if="previewOf(picture)"
                :src="previewOf(picture)!"
                alt=""
                loading="lazy"
                decoding="async"
              />
              <span v-else class="blank" />
              <span class="words small"
                ><span class="cut">{{ picture.file.name }}</span>
                <span :class="{ bad: picture.state === 'failed' }"
                  >{{ STATE_WORDS[picture.state] }}{{ picture.reason ? `: ${picture.reason}` : '' }}</span
                ></span
              >
              <v-select
                v-if="!animalId && picture.state !== 'done'"
                v-model="picture.to"
                :items="items"
                :label="`Whose: ${picture.file.name}`"
                density="compact"
                class="whose"
              />
              <v-btn
                v-if="picture.state === 'failed' && picture.url"
                size="small"
                variant="outlined"
                @click="again(picture)"
                >Again</v-btn
              >
              <v-btn
                v-if="picture.state !== 'sending'"
                :icon="mdiClose"
                size="small"
                variant="text"
                :aria-label="`Leave out ${picture.file.name}`"
                @click="drop(picture)"
              />
            </li>
          </ul>
        </template>
        <section v-if="kept.length > 0">
          <h3>{{ animalId ? 'Kept' : 'The clutch’s card' }}</h3>
          <div class="kept">
            <figure v-for="id in kept" :key="id">
              <a :href="api.pictureUrl(id)" target="_blank"
                ><img :src="api.thumbUrl(id)" alt="Kept picture"
              /></a>
              <figcaption class="row small">
                <a :href="api.originalUrl(id)">Original</a>
                <v-btn
                  :icon="mdiClose"
                  size="x-small"
                  variant="text"
                  aria-label="Remove this picture"
                  @click="removing.run(id)"
                />
              </figcaption>
            </figure>
          </div>
        </section>
      </v-card-text>
      <v-card-actions>
        <v-btn v-if="isSending" @click="stop">Stop</v-btn>
        <v-btn v-else @click="emit('close')">Close</v-btn>
        <v-spacer />
        <v-btn color="primary" variant="flat" :disabled="waiting === 0" :loading="isSending" @click="sendAll"
          >Keep {{ waiting > 0 ? waiting : '' }}</v-btn
        >
      </v-card-actions>
    </v-card>
    <PhotoBooth v-if="isBooth" :bench="bench" @close="isBooth = false" />
  </v-dialog>
</template>

<style scoped>
.drop {
  display: grid;
  justify-items: center;
  gap: 8px;
  padding: 18px;
  border: 2px dashed var(--hair);
  border-radius: 12px;
  text-align: center;
}
.drop.over {
  border-color: rgb(var(--v-theme-primary));
  background: color-mix(in srgb, rgb(var(--v-theme-primary)) 8%, transparent);
}
.progress {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 12px;
}
.queue {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 4px 0 0;
  list-style: none;
}
.queue li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.queue img,
.blank {
  width: 64px;
  height: 48px;
  object-fit: cover;
  border-radius: 8px;
  background: var(--hair);
}
.words {
  display: grid;
  flex: 1 1 160px;
  min-width: 0;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bad,
.warn {
  color: rgb(var(--v-theme-error));
  font-weight: 560;
}
.whose {
  flex: 0 1 220px;
}
.kept {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: 10px;
  margin-top: 8px;
}
figure {
  margin: 0;
}
.kept img {
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 8px;
}
</style>
