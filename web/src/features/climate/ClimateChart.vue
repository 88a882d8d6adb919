<script setup lang="ts">
import { LineChart } from 'echarts/charts';
import {
  AriaComponent,
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
import { momentWords, temperatureWords } from '../../format/format.ts';
import { climateOption, type ClimatePoint } from './climate-option.ts';
import { reader } from '../../format/reader.ts';

use([
  CanvasRenderer,
  LineChart,
  GridComponent,
  TooltipComponent,
  MarkAreaComponent,
  MarkLineComponent,
  AriaComponent,
]);
/** Temperatures over days of incubation or over time, with what is allowed as a band and the setting as a line. */
const props = defineProps<{
  points: readonly ClimatePoint[];
  setC: number | null;
  lowC?: number;
  highC?: number;
  /** "day": whole days of incubation; "time": moments in ms. */
  xName: 'day' | 'time';
}>();
const colors = useChartTheme();
const option = computed(() => {
  const { ink, soft, secondary, band, paper } = colors.value;
  return climateOption(props, { ink, soft, line: secondary, band, paper }, reader().temperatureUnit, xWords);
});
const words = (celsius: number): string => temperatureWords(celsius);
/** The table behind the chart: one row a day. */
const TABLE_ROWS = 70;
const rows = computed(() => props.points.slice(-TABLE_ROWS));
const xWords = (x: number): string =>
  props.xName === 'day' ? `day ${x}` : momentWords(new Date(x).toISOString());
</script>

<template>
  <div>
    <VChart
      :option="option"
      autoresize
      class="chart"
      aria-label="Temperatures over time. The table below has the same figures."
    />
    <p v-if="points.some(({ humidity }) => humidity != null)" class="small soft">
      Line: temperature. Dotted: humidity. Shaded: what is allowed.
    </p>
    <details class="small">
      <summary>As a table</summary>
      <div class="table">
        <table>
          <tbody>
            <tr v-for="point in rows" :key="point.x">
              <th scope="row">{{ xWords(point.x) }}</th>
              <td class="num">{{ words(point.celsius) }}</td>
              <td v-if="point.humidity != null" class="num">{{ Math.round(point.humidity) }}%</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </div>
</template>

<style scoped>
.chart {
  height: 180px;
}
.table {
  max-height: 220px;
  overflow-y: auto;
}
td {
  padding-right: 16px;
}
th {
  padding-right: 24px;
  font-weight: 400;
  text-align: left;
}
summary {
  cursor: pointer;
}
</style>
