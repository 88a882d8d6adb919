<script setup lang="ts">
import type { RoomKindForecast } from '@karyotome/core';
import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useChartTheme } from '../../ui/useChartTheme.ts';
import { roomOption } from './room-option.ts';

use([CanvasRenderer, LineChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent]);
const props = defineProps<{ kind: RoomKindForecast; weekDays: readonly string[] }>();
const colors = useChartTheme();
const option = computed(() => {
  const { ink, soft, primary, secondary, band, paper } = colors.value;
  return roomOption(props.kind, props.weekDays, {
    ink,
    soft,
    line: primary,
    accent: secondary,
    band,
    paper,
  });
});
</script>

<template>
  <VChart
    :option="option"
    autoresize
    class="chart"
    :aria-label="`${kind.name}: places needed week by week. The table below says the same.`"
  />
</template>

<style scoped>
.chart {
  height: 170px;
}
</style>
