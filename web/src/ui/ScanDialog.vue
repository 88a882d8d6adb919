<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { readCode } from './read-code.ts';
import { useCamera } from './useCamera.ts';

/** Looks for a QR code through the camera, or in a picture. */
const props = defineProps<{
  title: string;
  /** What carries the code, in the middle of a sentence. */
  carrier: string;
  /** What else to do where there is no camera. */
  otherwise: string;
  /** Whether a code is one of those that are looked for. */
  accepts: (text: string) => boolean;
}>();
const emit = defineEmits<{ found: [text: string]; close: [] }>();
const video = ref<HTMLVideoElement | null>(null);
const problem = ref<string | null>(null);
const { hasCamera } = useCamera(video);
const EVERY_MS = 200;
let timer: ReturnType<typeof setInterval> | undefined;

function look(source: CanvasImageSource, width: number, height: number): boolean {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(source, 0, 0, width, height);
  const text = readCode(context.getImageData(0, 0, width, height));
  if (text === null || !props.accepts(text)) return false;
  emit('found', text);
  return true;
}
watch(hasCamera, (has) => {
  if (!has) {
    problem.value = `The camera cannot be used here: choose a picture of ${props.carrier}, or ${props.otherwise}.`;
    return;
  }
  timer = setInterval(() => {
    const { videoWidth, videoHeight } = video.value!;
    if (videoWidth > 0 && look(video.value!, videoWidth, videoHeight)) clearInterval(timer);
  }, EVERY_MS);
});
onBeforeUnmount(() => clearInterval(timer));
async function fromFile(chosen: File | File[] | null | undefined): Promise<void> {
  const [file] = [chosen ?? []].flat();
  if (!file) return;
  try {
    const image = await createImageBitmap(file);
    if (!look(image, image.width, image.height))
      problem.value = `The code of ${props.carrier} is not in this picture.`;
  } catch {
    problem.value = 'This file is no picture.';
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="emit('close')">
    <v-card :title="title">
      <v-card-text class="stack">
        <video
          v-show="hasCamera !== false"
          ref="video"
          muted
          playsinline
          class="video"
          aria-label="What the camera sees"
        />
        <p v-if="problem" role="alert">{{ problem }}</p>
        <v-file-input :label="`A picture of ${carrier}`" accept="image/*" @update:model-value="fromFile" />
      </v-card-text>
      <v-card-actions><v-btn @click="emit('close')">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.video {
  width: 100%;
  max-height: 50vh;
  border-radius: 8px;
  background: rgb(var(--v-theme-surface-variant));
}
</style>
