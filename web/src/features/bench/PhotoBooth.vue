<script setup lang="ts">
import type { BenchView } from '@karyotome/contract';
import { mdiCameraOutline, mdiChevronLeft, mdiChevronRight } from '@mdi/js';
import { useEventListener, useIntervalFn, useVibrate } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useDisplay } from 'vuetify';
import { countWords } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useCamera } from '../../ui/useCamera.ts';
import { judgeFrame, PROBLEM_WORDS, problemsOf, type FrameProblem } from './judge-frame.ts';
import { usePictureQueue } from './usePictureQueue.ts';

/** Takes the pictures of a clutch one hatchling after another, number by number. Each is sent while the next is laid down. */
const props = defineProps<{ bench: BenchView }>();
const emit = defineEmits<{ close: [] }>();
/** How long the device buzzes once a picture is taken. */
const TAKEN_MS = 30;
const notices = useNotices();
const { smAndDown } = useDisplay();
const video = useTemplateRef<HTMLVideoElement>('video');
const { hasCamera } = useCamera(video, { width: { ideal: 2560 }, height: { ideal: 1920 } });
const { queue, done, isSending, take, send } = usePictureQueue(
  props.bench.clutch.id,
  () => props.bench.hatchlings,
);

const { vibrate } = useVibrate({ pattern: TAKEN_MS });

const at = ref(0);
const current = computed(() => props.bench.hatchlings[at.value]!);
const taken = computed(() => new Set(queue.value.map(({ to }) => to)));
const failed = computed(() => queue.value.filter(({ state }) => state === 'failed').length);
/** A frame that looks bad waits for a word. */
const doubtful = ref<{ file: File; url: string; problems: FrameProblem[] } | null>(null);

const JUDGED_WIDTH = 480;
const LOOK_MS = 250;
/** Frames of the last three seconds: what can be sharp is as sharp as the sharpest of them. */
const KEPT = 12;
const lately = ref<number[]>([]);
const now = ref<FrameProblem[]>([]);
const sharpest = computed(() => Math.max(0, ...lately.value));

function judged() {
  const { videoWidth, videoHeight } = video.value!;
  const height = Math.max(1, Math.round((JUDGED_WIDTH * videoHeight) / videoWidth));
  const canvas = new OffscreenCanvas(JUDGED_WIDTH, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(video.value!, 0, 0, JUDGED_WIDTH, height);
  return judgeFrame(context.getImageData(0, 0, JUDGED_WIDTH, height));
}
useIntervalFn(() => {
  if (!video.value?.videoWidth || doubtful.value) return;
  const frame = judged();
  lately.value = [...lately.value.slice(1 - KEPT), frame.sharpness];
  now.value = problemsOf(frame, sharpest.value);
}, LOOK_MS);

async function shoot(): Promise<void> {
  if (!video.value?.videoWidth || doubtful.value) return;
  const { videoWidth, videoHeight } = video.value;
  const canvas = new OffscreenCanvas(videoWidth, videoHeight);
  canvas.getContext('2d')!.drawImage(video.value, 0, 0);
  const problems = problemsOf(judged(), sharpest.value);
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
  const file = new File([blob], `${current.value.number}.jpg`, { type: 'image/jpeg' });
  if (problems.length > 0) doubtful.value = { file, url: URL.createObjectURL(file), problems };
  else keep(file);
}
function keep(file: File): void {
  again();
  take([file], current.value.id);
  vibrate();
  // What is being sent takes the new one along.
  if (!isSending.value) void send();
  if (at.value < props.bench.hatchlings.length - 1) at.value++;
  else notices.say('That was the last of the clutch');
}
/** The frame in doubt is given up. */
function again(): void {
  if (doubtful.value) URL.revokeObjectURL(doubtful.value.url);
  doubtful.value = null;
}
const go = (by: 1 | -1): void => {
  again();
  at.value = Math.min(props.bench.hatchlings.length - 1, Math.max(0, at.value + by));
};
const KEYS: Readonly<Record<string, () => unknown>> = {
  ' ': () => (doubtful.value ? again() : shoot()),
  Enter: () => (doubtful.value ? keep(doubtful.value.file) : shoot()),
  ArrowRight: () => go(1),
  ArrowLeft: () => go(-1),
};
useEventListener(
  'keydown',
  (event: KeyboardEvent) => {
    const act = KEYS[event.key];
    if (!act || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    void act();
  },
  { capture: true },
);
const problemWords = (problems: readonly FrameProblem[]): string =>
  problems.map((one) => PROBLEM_WORDS[one]).join(', ');
</script>

<template>
  <v-dialog :model-value="true" max-width="980" :fullscreen="smAndDown" @update:model-value="emit('close')">
    <v-card>
      <v-card-text class="stack">
        <div class="row">
          <v-btn :icon="mdiChevronLeft" variant="text" aria-label="The one before" @click="go(-1)" />
          <h2 class="number num" aria-live="polite">{{ current.number }}</h2>
          <v-btn :icon="mdiChevronRight" variant="text" aria-label="The next" @click="go(1)" />
          <span class="small soft">{{ at + 1 }} of {{ bench.hatchlings.length }}</span>
          <span v-if="taken.has(current.id)" class="small">has one of this sitting</span>
          <v-spacer />
          <span class="small soft" role="status"
            >{{ countWords(done, 'picture', 'pictures') }} kept<template v-if="failed > 0"
              >, {{ failed }} refused</template
            ></span
          >
        </div>
        <p v-if="hasCamera === false" role="alert">
          The camera cannot be used here. Take the pictures with another device and choose them as files: a
          number in a file’s name puts it to that hatchling.
        </p>
        <div v-show="hasCamera !== false" class="view">
          <video ref="video" muted playsinline aria-label="What the camera sees" />
          <img v-if="doubtful" :src="doubtful.url" alt="The picture that was just taken" />
        </div>
        <p v-if="doubtful" class="bad" role="alert">
          It looks {{ problemWords(doubtful.problems) }}. Take it again, or keep it all the same.
        </p>
        <p v-else class="small" :class="now.length > 0 ? 'bad' : 'soft'">
          {{
            now.length > 0
              ? `Just now: ${problemWords(now)}.`
              : 'Space or Enter takes it, the arrows go to another number.'
          }}
        </p>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Done</v-btn>
        <v-spacer />
        <template v-if="doubtful">
          <v-btn variant="outlined" @click="keep(doubtful.file)">Keep it</v-btn>
          <v-btn color="primary" variant="flat" size="large" @click="again">Again</v-btn>
        </template>
        <v-btn
          v-else
          color="primary"
          variant="flat"
          size="large"
          :prepend-icon="mdiCameraOutline"
          :disabled="!hasCamera"
          @click="shoot"
          >Take {{ current.number }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.number {
  font-size: 2.2rem;
}
.view {
  position: relative;
  display: grid;
}
.view > * {
  grid-area: 1 / 1;
  width: 100%;
  max-height: 60dvh;
  object-fit: contain;
  border-radius: 10px;
  background: #000;
}
.bad {
  color: rgb(var(--v-theme-error));
  font-weight: 560;
}
</style>
