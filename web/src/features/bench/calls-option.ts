import type { CallsView } from '@karyotome/contract';
import { CALL_ERROR, shareOf, type Share } from '@karyotome/core';
import type { EChartsOption } from 'echarts';

export interface CallsColors {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
}

/** How often what was called with each word proved right, beside how often the word promises. */
export interface SurenessPoint {
  readonly sure: string;
  readonly promised: number;
  readonly proved: Share;
}

export function surenessPoints(bySure: CallsView['bySure']): SurenessPoint[] {
  return bySure.map(({ sure, right, settled }) => ({
    sure,
    promised: 1 - CALL_ERROR[sure],
    proved: shareOf(right, settled),
  }));
}

const percent = (p: number): number => Math.round(p * 1000) / 10;

/** A calibration chart: on the line, a word keeps its promise; above it is too modest, below it too bold. */
export function callsOption(points: readonly SurenessPoint[], colors: CallsColors): EChartsOption {
  const settled = points.filter(({ proved }) => proved.share !== null);
  const low = Math.min(60, ...settled.map(({ proved }) => Math.floor(proved.low * 10) * 10));
  const axis = {
    type: 'value' as const,
    min: low,
    max: 100,
    axisLabel: { color: colors.ink, formatter: '{value}%' },
    splitLine: { lineStyle: { color: colors.soft, opacity: 0.25 } },
    nameTextStyle: { color: colors.ink },
  };
  return {
    animation: false,
    aria: { enabled: true },
    grid: { left: 56, right: 24, top: 30, bottom: 44 },
    xAxis: { ...axis, min: 60, name: 'promised', nameLocation: 'middle', nameGap: 28 },
    yAxis: { ...axis, name: 'proved right' },
    series: [
      {
        type: 'line',
        data: [
          [60, 60],
          [100, 100],
        ],
        symbol: 'none',
        silent: true,
        lineStyle: { color: colors.soft, type: 'dashed' },
      },
      ...settled.map(({ promised, proved }) => ({
        type: 'line' as const,
        data: [
          [percent(promised), percent(proved.low)],
          [percent(promised), percent(proved.high)],
        ],
        symbol: 'rect',
        symbolSize: [14, 2] as [number, number],
        silent: true,
        lineStyle: { color: colors.line, width: 2 },
        itemStyle: { color: colors.line },
      })),
      {
        type: 'scatter',
        symbolSize: 13,
        itemStyle: { color: colors.line },
        data: settled.map(({ sure, promised, proved }) => ({
          name: sure,
          value: [percent(promised), percent(proved.share!)],
        })),
        label: {
          show: true,
          position: 'left',
          offset: [-2, 12],
          formatter: '{b}',
          color: colors.ink,
          fontSize: 13,
        },
      },
    ],
  };
}
