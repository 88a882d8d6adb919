<script setup lang="ts">
import QRCode from 'qrcode';
import { shallowRef, watch } from 'vue';

/** A text as a QR code (ISO/IEC 18004, level M). */
const props = defineProps<{ text: string; label: string }>();
const drawing = shallowRef('');
watch(
  () => props.text,
  async (text) => {
    drawing.value = await QRCode.toString(text, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' });
  },
  { immediate: true },
);
</script>

<template>
  <!-- Drawn here by the library: squares alone, no text goes into it. -->
  <!-- eslint-disable-next-line vue/no-v-html -->
  <div class="code" role="img" :aria-label="label" v-html="drawing" />
</template>

<style scoped>
.code :deep(svg) {
  display: block;
  width: 100%;
  height: auto;
  border-radius: 6px;
}
</style>
