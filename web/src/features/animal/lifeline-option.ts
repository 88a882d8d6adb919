import type { CustomSeriesOption, EChartsOption, LineSeriesOption, ScatterSeriesOption } from 'echarts';
import { dayWords } from '../../format/format.ts';
import type { LifelineData } from './lifeline.ts';
import type { Reader, Unit } from '@karyotome/words';
import { chartAxis, chartTooltip } from '../../ui/chart-style.ts';

export interface LifelineColors {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly accent: string;
  readonly band: string;
  readonly paper: string;
}

const MARGIN = { left: 58, right: 16 };

/** The same with its masses in the unit of the reader. */
function inUnit(data: LifelineData, { toShown }: Unit): LifelineData {
  const limit = (massG: number | null): number | null => (massG === null ? null : toShown(massG));
  return {
    ...data,
    weights: data.weights.map((one) => ({ ...one, massG: toShown(one.massG) })),
    stays: data.stays.map((stay) => ({ ...stay, minG: limit(stay.minG), maxG: limit(stay.maxG) })),
    band: data.band.map(({ on, lowG, highG }) => ({ on, lowG: toShown(lowG), highG: toShown(highG) })),
  };
}

/** The whole record on one drawing: weights above, meals as ticks, sheds as bands, enclosures as steps along the bottom. */
export function lifelineOption(
  record: LifelineData,
  colors: LifelineColors,
  today: string,
  reader: Reader,
): EChartsOption {
  const { massUnit } = reader;
  const data = inUnit(record, massUnit);
  return {
    animation: false,
    aria: { enabled: true },
    grid: [
      { ...MARGIN, top: 22, height: 190 },
      { ...MARGIN, top: 222, height: 30 },
      { ...MARGIN, top: 258, height: 26 },
    ],
    ...axes(data, colors, today, massUnit),
    tooltip: {
      trigger: 'item',
      ...chartTooltip(colors),
    },
    dataZoom: [{ type: 'inside', xAxisIndex: [0, 1, 2], filterMode: 'none', zoomOnMouseWheel: 'ctrl' }],
    series: [
      ...expectedBand(data, colors),
      weights(data, colors, today, reader),
      ...markedDays(data, colors),
      meals(data, colors, true),
      meals(data, colors, false),
      stays(data, colors),
    ],
  };
}

/** Three rows over one time: weights, meals and tubs. */
function axes(
  data: LifelineData,
  colors: LifelineColors,
  today: string,
  massUnit: Unit,
): Pick<EChartsOption, 'xAxis' | 'yAxis'> {
  const axis = chartAxis(colors);
  const start =
    [
      ...data.weights.map((w) => w.on),
      ...data.meals.map((m) => m.on),
      ...data.marks.map((m) => m.on),
    ].toSorted()[0] ?? today;
  const time = (gridIndex: number, show: boolean) => ({
    type: 'time' as const,
    gridIndex,
    min: start,
    max: data.band.at(-1)?.on ?? today,
    ...axis,
    axisLabel: { show, color: colors.ink, hideOverlap: true },
    axisTick: { show },
    axisLine: { show, lineStyle: { color: colors.soft } },
  });
  const rowAxis = (gridIndex: number, name: string) => ({
    type: 'category' as const,
    gridIndex,
    data: [name],
    axisLine: { show: false },
    axisTick: { show: false },
    axisLabel: { color: colors.ink },
  });
  return {
    xAxis: [time(0, false), time(1, false), time(2, true)],
    yAxis: [
      {
        type: 'value',
        gridIndex: 0,
        min: 0,
        ...axis,
        axisLabel: { color: colors.ink, formatter: `{value} ${massUnit.symbol}` },
        splitLine: { show: true, lineStyle: { color: colors.band } },
      },
      rowAxis(1, 'meals'),
      rowAxis(2, 'tub'),
    ],
  };
}

/** Weights, with sheds as bands behind them, and the limit of the tub it lives in. */
function weights(
  data: LifelineData,
  colors: LifelineColors,
  today: string,
  reader: Reader,
): LineSeriesOption {
  const { massUnit } = reader;
  const range = data.stays.at(-1);
  return {
    name: 'weight',
    type: 'line',
    data: data.weights.map(({ id, on, massG }) => ({ value: [on, massG], id })),
    symbol: 'circle',
    symbolSize: 7,
    lineStyle: { color: colors.line, width: 2.5 },
    itemStyle: { color: colors.line },
    tooltip: {
      formatter: (p) => tip(p, (value) => `${reader.number(Number(value[1]), 2)} ${massUnit.symbol}`),
    },
    markArea: {
      silent: true,
      itemStyle: { color: colors.band },
      label: { show: false },
      data: data.sheds.map(({ from, to }) => [{ xAxis: from }, { xAxis: to }]),
    },
    markLine: {
      silent: true,
      symbol: 'none',
      lineStyle: { color: colors.accent, type: 'dashed' },
      label: { color: colors.ink, position: 'insideStartTop', distance: 3, formatter: '{b}' },
      data: [
        ...(range?.maxG
          ? [{ yAxis: range.maxG, name: `tub up to ${reader.number(range.maxG, 2)} ${massUnit.symbol}` }]
          : []),
        ...(data.band.length > 0 ? [{ xAxis: today, name: 'today' }] : []),
      ],
    },
  };
}

/** Moves and other events as triangles, sheds as diamonds. */
function markedDays(data: LifelineData, colors: LifelineColors): ScatterSeriesOption[] {
  return [
    {
      name: 'events',
      type: 'scatter',
      data: data.marks.map(({ id, on, text }) => ({ value: [on, 0], id, name: text })),
      symbol: 'triangle',
      symbolSize: 11,
      itemStyle: { color: colors.accent },
      tooltip: { formatter: (p) => tip(p, () => (p as { name: string }).name) },
    },
    {
      name: 'sheds',
      type: 'scatter',
      data: data.sheds.map(({ id, to, isWhole }) => ({
        value: [to, 0],
        id,
        name: isWhole ? 'shed whole' : 'bad shed',
      })),
      symbol: 'diamond',
      symbolSize: 9,
      itemStyle: { color: colors.soft },
      tooltip: { formatter: (p) => tip(p, () => (p as { name: string }).name) },
    },
  ];
}

/** What was expected: 19 of 20 weights of a healthy animal lie in the band. Drawn as a floor and what lies on it. */
function expectedBand(data: LifelineData, colors: LifelineColors): LineSeriesOption[] {
  const line = (
    name: string,
    values: readonly (readonly [string, number])[],
    fill: boolean,
  ): LineSeriesOption => ({
    name,
    type: 'line',
    stack: 'expected',
    symbol: 'none',
    silent: true,
    lineStyle: { opacity: 0 },
    ...(fill ? { areaStyle: { color: colors.line, opacity: 0.14 } } : {}),
    data: values.map(([on, g]) => [on, g]),
  });
  return [
    line(
      'expected from',
      data.band.map(({ on, lowG }) => [on, lowG]),
      false,
    ),
    line(
      'expected to',
      data.band.map(({ on, lowG, highG }) => [on, highG - lowG]),
      true,
    ),
  ];
}

/** Meals taken are filled ticks, refused ones are crosses: never told apart by colour alone. */
function meals(data: LifelineData, colors: LifelineColors, taken: boolean): ScatterSeriesOption {
  return {
    name: taken ? 'taken' : 'refused',
    type: 'scatter',
    xAxisIndex: 1,
    yAxisIndex: 1,
    symbol: taken ? 'rect' : 'path://M-1,-1L1,1M1,-1L-1,1',
    symbolSize: taken ? [4, 20] : [9, 9],
    itemStyle: taken ? { color: colors.line } : { color: 'none', borderColor: colors.accent, borderWidth: 2 },
    data: data.meals
      .filter((meal) => meal.taken === taken)
      .map(({ id, on, prey }) => ({ value: [on, 'meals'], id, name: prey })),
    tooltip: {
      formatter: (p: unknown) =>
        tip(p, () => `${(p as { name: string }).name}, ${taken ? 'taken' : 'refused'}`),
    },
  };
}

/** The tubs it lived in, as bars along the bottom with their names where they fit. */
function stays(data: LifelineData, colors: LifelineColors): CustomSeriesOption {
  return {
    name: 'tub',
    type: 'custom',
    xAxisIndex: 2,
    yAxisIndex: 2,
    encode: { x: [0, 1], y: 2 },
    data: data.stays.map(({ id, from, to, place }) => ({ value: [from, to, 0], id, name: place })),
    tooltip: { formatter: (p: unknown) => tip(p, () => (p as { name: string }).name) },
    renderItem: (parameters, api) => {
      const [x0, y] = api.coord([api.value(0), 0]) as [number, number];
      const [x1] = api.coord([api.value(1), 0]) as [number, number];
      const name = data.stays[parameters.dataIndex]?.place ?? '';
      const text = x1 - x0 > name.length * 7 + 8 ? name : '';
      return {
        type: 'rect' as const,
        shape: { x: x0 + 1, y: y - 11, width: Math.max(2, x1 - x0 - 2), height: 22, r: 4 },
        style: { fill: colors.band, stroke: colors.soft, lineWidth: 1 },
        textContent: { type: 'text' as const, style: { text, fill: colors.ink, fontSize: 12 } },
        textConfig: { position: 'inside' as const },
      };
    },
  };
}

function tip(parameters: unknown, text: (value: readonly unknown[]) => string): string {
  const { value } = parameters as { value: readonly unknown[] };
  return `${dayWords(String(value[0]).slice(0, 10))}\n${text(value)}`;
}
