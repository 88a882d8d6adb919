<script setup lang="ts">
import type { GrowthLine } from '@karyotome/contract';
import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { massWords, numberWords, sexSign } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { chartAxis, chartTooltip } from '../../ui/chart-style.ts';
import { useChartTheme } from '../../ui/useChartTheme.ts';
import { AGES, byAge, labelShifts, topOf, weightAt } from './growth-table.ts';

use([CanvasRenderer, LineChart, GridComponent, TooltipComponent, AriaComponent]);
/** Growth of several animals laid over one another by age: each line bears its number. The one that is meant stands out. */
const props = defineProps<{ lines: readonly GrowthLine[]; meant?: string | undefined }>();
/** The height of the drawing between its axes. */
const PLOT_PX = 286;
const colors = useChartTheme();
const aged = computed(() => props.lines.map((line) => ({ ...line, aged: byAge(line) })));
/** Ages that somebody was weighed at. */
const ages = computed(() => AGES.filter((age) => aged.value.some((one) => weightAt(one.aged, age) !== null)));
/** @param shifts - of the names at the ends, in pixels */
function linesOf(shifts: readonly number[]) {
  const { ink, soft, primary, secondary } = colors.value;
  const { massUnit } = reader();
  return aged.value.map(({ id, number, sex, aged: weights }, i) => {
    const isMeant = id === props.meant;
    const color = isMeant ? primary : props.meant === undefined ? secondary : soft;
    return {
      name: number,
      type: 'line' as const,
      data: weights.map(({ age, massG }) => [age, massUnit.toShown(massG)]),
      // Told apart by their marks too, not by colour alone.
      symbol: sex === 'female' ? 'circle' : sex === 'male' ? 'rect' : 'triangle',
      symbolSize: isMeant ? 7 : 5,
      z: isMeant ? 3 : 2,
      lineStyle: { color, width: isMeant ? 3.5 : 1.5 },
      itemStyle: { color },
      endLabel: {
        show: true,
        offset: [0, shifts[i]!] as [number, number],
        formatter: '{a}',
        color: ink,
        fontWeight: isMeant ? 'bold' : 'normal',
      },
    };
  });
}
const option = computed(() => {
  const { ink } = colors.value;
  const { massUnit } = reader();
  const ends = aged.value.map((one) => massUnit.toShown(one.aged.at(-1)?.massG ?? 0));
  const top = topOf(
    Math.max(0, ...aged.value.flatMap((one) => one.aged.map(({ massG }) => massUnit.toShown(massG)))),
  );
  const shifts = labelShifts(ends, PLOT_PX / top);
  const axis = chartAxis(colors.value);
  return {
    animation: false,
    aria: { enabled: true },
    // Room for the numbers at the ends of the lines.
    grid: { left: 58, right: 78, top: 14, bottom: 40 },
    tooltip: {
      trigger: 'item' as const,
      ...chartTooltip(colors.value),
      formatter: (at: unknown) => {
        const { seriesName, value } = at as { seriesName: string; value: [number, number] };
        return `${seriesName}, ${reader().count(value[0], 'day', 'days')}: ${massWords(massUnit.toStored(value[1]))}`;
      },
    },
    xAxis: {
      type: 'value' as const,
      name: 'days old',
      nameLocation: 'middle' as const,
      nameGap: 26,
      ...axis,
    },
    yAxis: {
      type: 'value' as const,
      min: 0,
      max: top,
      ...axis,
      axisLabel: { color: ink, formatter: `{value} ${massUnit.symbol}` },
    },
    series: linesOf(shifts),
  };
});
</script>

<template>
  <div>
    <VChart
      :option="option"
      autoresize
      class="chart"
      aria-label="Growth by age. The table has the weights at the same ages."
    />
    <p class="small soft">Circles: females, squares: males, triangles: sex not known.</p>
    <details class="small">
      <summary>As a table</summary>
      <div class="scroll">
        <table class="figures">
          <thead>
            <tr>
              <th scope="col">Animal</th>
              <th v-for="age in ages" :key="age" scope="col" class="num">
                {{ age === 0 ? 'hatched' : `${numberWords(age)} days` }}
              </th>
              <th scope="col" class="num">last</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in aged" :key="one.id">
              <th scope="row">
                <router-link :to="`/animals/${one.id}`">{{ one.number }}</router-link> {{ sexSign(one.sex) }}
              </th>
              <td v-for="age in ages" :key="age" class="num">
                {{ weightAt(one.aged, age) === null ? '' : massWords(weightAt(one.aged, age)!) }}
              </td>
              <td class="num">{{ one.aged.length > 0 ? massWords(one.aged.at(-1)!.massG) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </div>
</template>

<style scoped>
.chart {
  height: 340px;
}
summary {
  cursor: pointer;
}
</style>
