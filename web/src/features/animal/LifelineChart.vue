<script setup lang="ts">
import type { AnimalView } from '@karyotome/contract';
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useChartTheme } from '../../ui/useChartTheme.ts';
import { farmToday } from '../../format/format.ts';
import { lifelineOption } from './lifeline-option.ts';
import { toLifeline } from './lifeline.ts';
import { reader } from '../../format/reader.ts';

use([
  CanvasRenderer,
  LineChart,
  ScatterChart,
  CustomChart,
  GridComponent,
  TooltipComponent,
  MarkAreaComponent,
  MarkLineComponent,
  DataZoomComponent,
  AriaComponent,
]);
const props = defineProps<{ animal: AnimalView }>();
const emit = defineEmits<{ open: [string] }>();
const colors = useChartTheme();
const data = computed(() => toLifeline(props.animal, farmToday()));
const option = computed(() => {
  const { ink, soft, primary, secondary, band, paper } = colors.value;
  const marks = { ink, soft, line: primary, accent: secondary, band, paper };
  return lifelineOption(data.value, marks, farmToday(), reader());
});
const isEmpty = computed(() => data.value.weights.length + data.value.meals.length === 0);
function onClick(event: { data?: unknown }): void {
  const id = (event.data as { id?: string } | undefined)?.id;
  if (id) emit('open', id);
}
</script>

<template>
  <p v-if="isEmpty" class="soft">Its line begins with the first weight or meal.</p>
  <template v-else>
    <VChart
      :option="option"
      autoresize
      class="chart"
      aria-label="Lifeline: weights, meals, sheds and tubs over time. The table is the record below."
      @click="onClick"
    />
    <p class="small soft legend">
      Line: weight. Pale band: what was expected, and what is to come. Tall ticks: meals taken, crosses:
      refused. Shaded: in shed. Triangles: hatched, sexed, identified. Touch a mark to open its record.
    </p>
  </template>
</template>

<style scoped>
.chart {
  height: 318px;
}
</style>
