<script setup lang="ts">
import type { SimulationResult } from '@karyotome/core';
import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { reader } from '../../format/reader.ts';
import { chartAxis, chartTooltip } from '../../ui/chart-style.ts';
import { useChartTheme } from '../../ui/useChartTheme.ts';

use([CanvasRenderer, LineChart, GridComponent, TooltipComponent, AriaComponent]);
/** The chance that a plan has brought its target by the end of each year: as lines that bear their names, and as a table. */
const props = defineProps<{
  plans: readonly { readonly name: string; readonly result: SimulationResult }[];
}>();
const colors = useChartTheme();
const option = computed(() => {
  const { ink, primary, secondary } = colors.value;
  const axis = chartAxis(colors.value);
  return {
    animation: false,
    aria: { enabled: true },
    // Room for the names at the ends of the lines.
    grid: { left: 48, right: 132, top: 14, bottom: 40 },
    tooltip: {
      trigger: 'axis' as const,
      ...chartTooltip(colors.value),
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
      endLabel: { show: true, formatter: '{a}', color: ink, width: 120, overflow: 'truncate' as const },
      lineStyle: {
        width: 2,
        type: i === 0 ? ('solid' as const) : ('dashed' as const),
        color: i === 0 ? primary : secondary,
      },
      itemStyle: { color: i === 0 ? primary : secondary },
    })),
  };
});
/** Of a share with this standard error, what 95% of such plays lie within. */
const within = (se: number): string => `± ${reader().number(se * 196, 1)}%`;
</script>

<template>
  <div>
    <VChart
      :option="option"
      autoresize
      class="chart"
      aria-label="Chance of the target by the end of each year. The table has the same figures."
    />
    <details class="small">
      <summary>Year by year</summary>
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">By the end of year</th>
            <th v-for="{ name } in plans" :key="name" scope="col" class="num">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(_, i) in plans[0]?.result.byYear" :key="i">
            <th scope="row">{{ i + 1 }}</th>
            <td v-for="{ name, result } in plans" :key="name" class="num">
              {{ reader().percent(result.byYear[i]!.share) }}
              <span class="soft">{{ within(result.byYear[i]!.se) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft">
        From {{ reader().number(plans[0]?.result.runs ?? 0) }} runs; ± is what chance in the playing allows.
      </p>
    </details>
  </div>
</template>

<style scoped>
.chart {
  height: 220px;
}
summary {
  cursor: pointer;
}
</style>
