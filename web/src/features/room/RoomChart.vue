<script setup lang="ts">
import type { RoomKindForecast } from '@karyotome/core';
import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed } from 'vue';
import VChart from 'vue-echarts';
import { useTheme } from 'vuetify';
import { roomOption } from './room-option.ts';

use([CanvasRenderer, LineChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent]);
const props = defineProps<{ kind: RoomKindForecast; weekDays: readonly string[] }>();
const theme = useTheme();
const option = computed(() => {
  const { colors, dark } = theme.current.value;
  return roomOption(props.kind, props.weekDays, {
    ink: String(colors['on-surface']),
    soft: dark ? '#7d5738' : '#8a8274',
    line: String(colors['primary']),
    accent: String(colors['secondary']),
    band: dark ? '#2c1c11' : '#e9e0d0',
    paper: String(colors['surface']),
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
