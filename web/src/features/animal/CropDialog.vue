<script setup lang="ts">
import type { PictureEdit, PictureView } from '@karyotome/contract';
import { mdiRotateLeft, mdiRotateRight } from '@mdi/js';
import Cropper from 'cropperjs';
import 'cropperjs/dist/cropper.css';
import { onBeforeUnmount, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import FormDialog from '../../ui/FormDialog.vue';

/** Turns and crops a picture. The original stays: it can be turned and cropped anew at any time. */
const props = defineProps<{ picture: PictureView }>();
const emit = defineEmits<{ close: [] }>();
const notices = useNotices();
const image = ref<HTMLImageElement | null>(null);
const isReady = ref(false);
const isEvened = ref(props.picture.edit?.isEvened ?? false);
/** A little off the level, besides the quarter turns. */
const tilt = ref(0);
const quarters = ref(0);
let cropper: Cropper | null = null;

function start(): void {
  cropper?.destroy();
  cropper = new Cropper(image.value!, {
    viewMode: 1,
    autoCropArea: 1,
    // Its chequered ground is a picture from a data address, which the page does not load.
    background: false,
    ready: () => {
      begin();
      isReady.value = true;
    },
  });
}
/** As it was turned and cropped before. */
function begin(): void {
  const { edit } = props.picture;
  if (!edit || !cropper) return;
  quarters.value = Math.round(edit.turn / 90);
  tilt.value = Math.round((edit.turn - quarters.value * 90) * 10) / 10;
  cropper.rotateTo(edit.turn);
  const { width, height } = turnedSize(edit.turn);
  cropper.setData({
    x: edit.crop.left * width,
    y: edit.crop.top * height,
    width: edit.crop.width * width,
    height: edit.crop.height * height,
  });
}
/** The size of the turned picture with its corners, in pixels of the original. */
function turnedSize(degrees: number): { width: number; height: number } {
  const { naturalWidth, naturalHeight } = cropper!.getImageData();
  const [sin, cos] = [Math.sin, Math.cos].map((of) => Math.abs(of((degrees * Math.PI) / 180))) as [
    number,
    number,
  ];
  return {
    width: naturalWidth * cos + naturalHeight * sin,
    height: naturalWidth * sin + naturalHeight * cos,
  };
}
const turnOf = (): number => quarters.value * 90 + tilt.value;
function turn(): void {
  cropper?.rotateTo(turnOf());
}
function quarter(by: 1 | -1): void {
  quarters.value = (quarters.value + by) % 4;
  turnWhole();
}
/** Turned by a quarter it is shown as a whole again, with all of it chosen. */
function turnWhole(): void {
  if (!cropper) return;
  cropper.clear();
  turn();
  const { width: wide, height: high } = cropper.getContainerData();
  const { naturalWidth, naturalHeight } = cropper.getCanvasData();
  const scale = Math.min(wide / naturalWidth, high / naturalHeight);
  const [width, height] = [naturalWidth * scale, naturalHeight * scale];
  const place = { left: (wide - width) / 2, top: (high - height) / 2, width, height };
  cropper.setCanvasData(place);
  cropper.crop();
  cropper.setCropBoxData(place);
}
const share = (part: number, of: number): number => Math.min(1, Math.max(0, part / of));
function editNow(): PictureEdit {
  const degrees = turnOf();
  const { width, height } = turnedSize(degrees);
  const data = cropper!.getData();
  const [left, top] = [share(data.x, width), share(data.y, height)];
  return {
    turn: degrees,
    crop: {
      left,
      top,
      width: Math.min(1 - left, share(data.width, width)),
      height: Math.min(1 - top, share(data.height, height)),
    },
    isEvened: isEvened.value,
  };
}
const WHOLE: PictureEdit = { turn: 0, crop: { left: 0, top: 0, width: 1, height: 1 }, isEvened: false };
const { run, busy, general } = useWrite((edit: PictureEdit) => api.editPicture(props.picture.id, edit));
async function send(edit: PictureEdit): Promise<void> {
  if (!(await run(edit))) return;
  notices.say('Picture changed. Its original stays.');
  emit('close');
}
onBeforeUnmount(() => cropper?.destroy());
</script>

<template>
  <FormDialog
    title="Turn and crop"
    submit-text="Keep"
    :max-width="760"
    :busy="busy"
    :general="() => general([])"
    @close="emit('close')"
    @submit="send(editNow())"
  >
    <div class="wide stage">
      <img ref="image" :src="api.originalUrl(picture.id)" alt="The picture to crop" @load.once="start" />
    </div>
    <div class="wide row">
      <v-btn :icon="mdiRotateLeft" variant="text" aria-label="A quarter to the left" @click="quarter(-1)" />
      <v-btn :icon="mdiRotateRight" variant="text" aria-label="A quarter to the right" @click="quarter(1)" />
      <v-slider
        v-model="tilt"
        label="Level"
        :min="-20"
        :max="20"
        :step="0.5"
        hide-details
        class="tilt"
        @update:model-value="turn"
      />
    </div>
    <v-checkbox v-model="isEvened" class="wide" label="Even the light on the ground" hide-details />
    <template #more>
      <v-btn v-if="picture.edit" variant="text" :disabled="busy" @click="send(WHOLE)">As it came</v-btn>
    </template>
  </FormDialog>
</template>

<style scoped>
.stage {
  height: min(52dvh, 420px);
}
.stage img {
  display: block;
  max-width: 100%;
  max-height: 100%;
}
.tilt {
  flex: 1;
  min-width: 180px;
}
</style>
