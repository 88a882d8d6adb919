<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue';
import { readCode } from './read-code.ts';

/** Looks for a label's code through the camera, or in a picture. */
const emit = defineEmits<{ found: [animalId: string]; close: [] }>();
const video = ref<HTMLVideoElement | null>(null);
const problem = ref<string | null>(null);
const EVERY_MS = 200;
let stream: MediaStream | null = null;
let timer: ReturnType<typeof setInterval> | undefined;

function look(source: CanvasImageSource, width: number, height: number): boolean {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(source, 0, 0, width, height);
  const animal = readCode(context.getImageData(0, 0, width, height));
  if (animal) emit('found', animal);
  return animal !== null;
}
onMounted(async () => {
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
    video.value!.srcObject = stream;
    await video.value!.play();
    timer = setInterval(() => {
      const { videoWidth, videoHeight } = video.value!;
      if (videoWidth > 0 && look(video.value!, videoWidth, videoHeight)) clearInterval(timer);
    }, EVERY_MS);
  } catch {
    problem.value = 'The camera cannot be used here: choose a picture of the label, or type the number.';
  }
});
onBeforeUnmount(() => {
  clearInterval(timer);
  stream?.getTracks().forEach((track) => track.stop());
});
async function fromFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (!file) return;
  try {
    const image = await createImageBitmap(file);
    if (!look(image, image.width, image.height)) problem.value = 'No label of an animal is in this picture.';
  } catch {
    problem.value = 'This file is no picture.';
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="emit('close')">
    <v-card title="Scan a label">
      <v-card-text class="stack">
        <video ref="video" muted playsinline class="video" aria-label="What the camera sees" />
        <p v-if="problem" role="alert">{{ problem }}</p>
        <label class="small">
          A picture of the label
          <input type="file" accept="image/*" @change="fromFile" />
        </label>
      </v-card-text>
      <v-card-actions><v-btn @click="emit('close')">Leave</v-btn></v-card-actions>
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
