<script setup lang="ts">
import type { DrawnLabel, LabelPreview } from '@karyotome/contract';

/** One label as it is printed: the same places, sizes and code. Paper is white in every theme. */
defineProps<{ label: DrawnLabel; preview: Pick<LabelPreview, 'widthMm' | 'heightMm'> }>();
</script>

<template>
  <svg
    :viewBox="`0 0 ${preview.widthMm} ${preview.heightMm}`"
    class="label"
    role="img"
    :aria-label="`Label: ${label.texts.map(({ text }) => text).join(', ')}`"
  >
    <rect :width="preview.widthMm" :height="preview.heightMm" rx="1" class="paper" />
    <text
      v-for="(text, i) in label.texts"
      :key="i"
      :x="text.x"
      :y="text.y"
      :font-size="text.sizeMm"
      :font-weight="text.isBold ? 700 : 400"
      :textLength="text.widthMm"
      lengthAdjust="spacingAndGlyphs"
    >
      {{ text.text }}
    </text>
    <path
      v-if="label.qr"
      :d="label.qr.path"
      :transform="`translate(${label.qr.x} ${label.qr.y}) scale(${label.qr.sideMm / label.qr.modules})`"
    />
  </svg>
</template>

<style scoped>
.label {
  display: block;
  width: 100%;
}
.paper {
  fill: #fff;
}
text {
  white-space: pre;
  letter-spacing: 0;
  fill: #000;
}
.v-theme--night .paper {
  fill: #cbb9a2;
}
</style>
