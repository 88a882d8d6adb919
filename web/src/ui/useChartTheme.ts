import { computed, provide } from 'vue';
import { THEME_KEY } from 'vue-echarts';
import { useTheme } from 'vuetify';

/** What charts are drawn with. */
export interface ChartColors {
  readonly ink: string;
  readonly soft: string;
  readonly primary: string;
  readonly secondary: string;
  readonly band: string;
  readonly paper: string;
}

const FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';

/**
 * The theme's colours for the charts of a component, which draw on a canvas and know no style sheet. What they say on touch is
 * drawn as well: put together from HTML, its styles would be refused by the page's policy.
 */
export function useChartTheme() {
  provide(THEME_KEY, { textStyle: { fontFamily: FONT }, tooltip: { renderMode: 'richText' } });
  const theme = useTheme();
  return computed((): ChartColors => {
    const { colors, dark } = theme.current.value;
    return {
      ink: String(colors['on-surface']),
      soft: dark ? '#7d5738' : '#8a8274',
      primary: String(colors['primary']),
      secondary: String(colors['secondary']),
      band: dark ? '#2c1c11' : '#e9e0d0',
      paper: String(colors['surface']),
    };
  });
}
