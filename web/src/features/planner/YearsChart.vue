<script setup lang="ts">
import type { SimulationResult } from '@karyotome/core';
import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useChartTheme } from '../../ui/useChartTheme.ts';

use([CanvasRenderer, LineChart, GridComponent, LegendComponent, TooltipComponent, AriaComponent]);
/** The chance that a plan has brought its target by the end of each year. */
const props = defineProps<{
  plans: readonly { readonly name: string; readonly result: SimulationResult }[];
}>();
const colors = useChartTheme();
const option = computed(() => {
  const { ink, soft, primary, secondary, paper } = colors.value;
  const axis = {
    axisLine: { lineStyle: { color: soft } },
    axisLabel: { color: ink },
    nameTextStyle: { color: ink },
    splitLine: { show: false },
  };
  return {
    animation: false,
    aria: { enabled: true },
    grid: { left: 48, right: 16, top: 34, bottom: 40 },
    legend: { textStyle: { color: ink }, top: 0 },
    tooltip: {
      trigger: 'axis' as const,
      backgroundColor: paper,
      borderColor: soft,
      textStyle: { color: ink },
      valueFormatter: (value: unknown) => `${Math.round(Number(value))}%`,
    },
    xAxis: {
      type: 'category' as const,
      name: 'end of year',
      nameLocation: 'middle' as const,
      nameGap: 26,
      data: (props.plans[0]?.result.byYear ?? []).map((_, i) => String(i + 1)),
      ...axis,
    },
    yAxis: {
      type: 'value' as const,
      min: 0,
      max: 100,
      ...axis,
      axisLabel: { color: ink, formatter: '{value}%' },
    },
    series: props.plans.map(({ name, result }, i) => ({
      name,
      type: 'line' as const,
      data: result.byYear.map(({ share }) => share * 100),
      symbol: i === 0 ? 'circle' : 'rect',
      symbolSize: 8,
      lineStyle: {
        width: 2,
        type: i === 0 ? ('solid' as const) : ('dashed' as const),
        color: i === 0 ? primary : secondary,
      },
      itemStyle: { color: i === 0 ? primary : secondary },
    })),
  };
});
</script>

<template>
  <VChart
    :option="option"
    autoresize
    class="chart"
    aria-label="Chance of the target by the end of each year. The table has the same figures."
  />
</template>

<style scoped>
.chart {
  height: 220px;
}
</style>
