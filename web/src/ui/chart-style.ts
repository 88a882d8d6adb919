import type { ChartColors } from './useChartTheme.ts';

/** An axis of any chart: a quiet line with its words in ink, and no grid. */
export const chartAxis = ({ ink, soft }: Pick<ChartColors, 'ink' | 'soft'>) => ({
  axisLine: { lineStyle: { color: soft } },
  axisLabel: { color: ink },
  nameTextStyle: { color: ink },
  splitLine: { show: false },
});

/** What a chart says on touch. */
export const chartTooltip = ({ ink, soft, paper }: Pick<ChartColors, 'ink' | 'soft' | 'paper'>) => ({
  confine: true,
  backgroundColor: paper,
  borderColor: soft,
  textStyle: { color: ink },
});
