import type { RoomKindForecast } from '@karyotome/core';
import type { EChartsOption, LineSeriesOption } from 'echarts';
import { chartAxis, chartTooltip } from '../../ui/chart-style.ts';

export interface RoomColors {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly accent: string;
  readonly band: string;
  readonly paper: string;
}

/** Places needed, week by week, with the band in which nine of ten runs lie, against the places there are. */
export function roomOption(
  kind: RoomKindForecast,
  weekDays: readonly string[],
  colors: RoomColors,
): EChartsOption {
  const axis = chartAxis(colors);
  const most = Math.max(kind.places, ...kind.weeks.map(({ high }) => high));
  return {
    animation: false,
    aria: { enabled: true },
    grid: { left: 40, right: 14, top: 14, bottom: 26 },
    xAxis: {
      type: 'category',
      data: [...weekDays],
      ...axis,
      axisTick: { show: false },
      axisLabel: { color: colors.ink, interval: 7, formatter: (day: string) => day },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: Math.ceil(most * 1.1) || 1,
      minInterval: 1,
      ...axis,
      splitLine: { lineStyle: { color: colors.band } },
    },
    tooltip: {
      trigger: 'axis',
      ...chartTooltip(colors),
      formatter: (points: unknown) => {
        const index = (points as { dataIndex: number }[])[0]!.dataIndex;
        const { low, mid, high, over } = kind.weeks[index]!;
        return `${weekDays[index]}\n${mid} places, ${low} to ${high}\ntoo few in ${Math.round(over * 100)}% of runs`;
      },
    },
    series: placesNeeded(kind, colors),
  };
}

/** The middle of all runs, over a band that is drawn as a floor and what lies on it. */
function placesNeeded(kind: RoomKindForecast, colors: RoomColors): LineSeriesOption[] {
  return [
    {
      name: 'from',
      type: 'line',
      stack: 'band',
      symbol: 'none',
      lineStyle: { opacity: 0 },
      data: kind.weeks.map(({ low }) => low),
    },
    {
      name: 'to',
      type: 'line',
      stack: 'band',
      symbol: 'none',
      lineStyle: { opacity: 0 },
      areaStyle: { color: colors.band, opacity: 1 },
      data: kind.weeks.map(({ low, high }) => high - low),
    },
    {
      name: 'middle',
      type: 'line',
      symbol: 'none',
      lineStyle: { color: colors.line, width: 2.5 },
      data: kind.weeks.map(({ mid }) => mid),
      markLine: {
        silent: true,
        symbol: 'none',
        lineStyle: { color: colors.accent, type: 'dashed', width: 2 },
        label: { color: colors.ink, position: 'insideEndTop', formatter: `${kind.places} places` },
        data: [{ yAxis: kind.places }],
      },
    },
  ];
}
