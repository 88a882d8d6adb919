import type { EChartsOption, LineSeriesOption } from 'echarts';
import type { Unit } from '@karyotome/words';
import { chartAxis, chartTooltip } from '../../ui/chart-style.ts';

export interface ClimatePoint {
  /** A day of incubation, or a moment in ms. */
  readonly x: number;
  readonly celsius: number;
  /** Relative, percent; null where it was not measured. */
  readonly humidity?: number | null;
}
export interface ClimateChartData {
  readonly points: readonly ClimatePoint[];
  readonly setC: number | null;
  readonly lowC?: number;
  readonly highC?: number;
  readonly xName: 'day' | 'time';
}
interface Colors {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly band: string;
  readonly paper: string;
}

/** Room above and below what is shown, in the unit of the axis. */
const MARGIN = 0.6;

/** The lowest and highest value of the axis: all that is measured and allowed, with a margin. */
export function axisRange({ points, setC, lowC, highC }: ClimateChartData): [number, number] {
  const all = [...points.map(({ celsius }) => celsius), ...[setC, lowC, highC].filter((c) => c != null)];
  return [Math.floor(Math.min(...all) - MARGIN), Math.ceil(Math.max(...all) + MARGIN)];
}

/** The same in the unit of the reader. */
function inUnit(data: ClimateChartData, { toShown }: Unit): ClimateChartData {
  return {
    ...data,
    points: data.points.map((point) => ({ ...point, celsius: toShown(point.celsius) })),
    setC: data.setC === null ? null : toShown(data.setC),
    ...(data.lowC === undefined ? {} : { lowC: toShown(data.lowC) }),
    ...(data.highC === undefined ? {} : { highC: toShown(data.highC) }),
  };
}

/** @param xWords - how a place on the axis is told */
export function climateOption(
  measured: ClimateChartData,
  colors: Colors,
  unit: Unit,
  xWords: (x: number) => string,
): EChartsOption {
  const data = inUnit(measured, unit);
  const [min, max] = axisRange(data);
  const hasHumidity = data.points.some((point) => point.humidity != null);
  const axis = { ...chartAxis(colors), axisLabel: { color: colors.ink, hideOverlap: true } };
  return {
    animation: false,
    aria: { enabled: true },
    grid: { left: 44, right: hasHumidity ? 44 : 12, top: 10, bottom: 26 },
    tooltip: {
      trigger: 'axis',
      ...chartTooltip(colors),
    },
    xAxis: {
      ...(data.xName === 'day'
        ? { type: 'value' as const, min: 0, max: 'dataMax' as const }
        : { type: 'time' as const }),
      ...axis,
      axisPointer: { label: { formatter: ({ value }) => xWords(Number(value)) } },
    },
    yAxis: [
      { type: 'value', min, max, ...axis, axisLabel: { color: colors.ink, formatter: '{value} °' } },
      {
        type: 'value',
        min: 0,
        max: 100,
        show: hasHumidity,
        ...axis,
        axisLabel: { color: colors.soft, formatter: '{value}%' },
      },
    ],
    series: [temperature(data, colors, unit), ...(hasHumidity ? [humidity(data, colors)] : [])],
  };
}

function temperature(data: ClimateChartData, colors: Colors, unit: Unit): LineSeriesOption {
  return {
    name: 'Temperature',
    type: 'line',
    showSymbol: false,
    data: data.points.map(({ x, celsius }) => [x, celsius]),
    tooltip: { valueFormatter: (value) => `${Number(value).toFixed(1)} ${unit.symbol}` },
    lineStyle: { color: colors.line, width: 2 },
    itemStyle: { color: colors.line },
    ...(data.setC === null
      ? {}
      : {
          markLine: {
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: colors.soft, type: 'dashed' },
            data: [{ yAxis: data.setC }],
          },
        }),
    ...(data.lowC === undefined || data.highC === undefined
      ? {}
      : {
          markArea: {
            silent: true,
            itemStyle: { color: colors.band },
            data: [[{ yAxis: data.lowC }, { yAxis: data.highC }]],
          },
        }),
  };
}

function humidity(data: ClimateChartData, colors: Colors): LineSeriesOption {
  return {
    name: 'Humidity',
    type: 'line',
    yAxisIndex: 1,
    showSymbol: false,
    data: data.points.map(({ x, humidity: percent }) => [x, percent ?? null]),
    tooltip: { valueFormatter: (value: unknown) => `${Math.round(Number(value))}%` },
    lineStyle: { color: colors.soft, width: 1.5, type: 'dotted' },
    itemStyle: { color: colors.soft },
  };
}
