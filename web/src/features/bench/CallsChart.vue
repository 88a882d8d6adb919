<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useChartTheme } from '../../ui/useChartTheme.ts';
import { callsOption, type SurenessPoint } from './calls-option.ts';

use([CanvasRenderer, LineChart, ScatterChart, GridComponent, AriaComponent]);
/** Promised against proved. */
const props = defineProps<{ points: readonly SurenessPoint[] }>();
const colors = useChartTheme();
const option = computed(() => {
  const { ink, soft, secondary } = colors.value;
  return callsOption(props.points, {
    ink,
    soft,
    line: secondary,
  });
});
</script>

<template>
  <VChart
    :option="option"
    autoresize
    class="chart"
    aria-label="How often calls proved right against how sure they were. The table below has the same figures."
  />
</template>

<style scoped>
.chart {
  height: 300px;
}
</style>
