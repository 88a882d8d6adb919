import 'vuetify/styles';
import { useLocalStorage } from '@vueuse/core';
import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { readerLocale } from '../format/reader.ts';

export const THEMES = ['day', 'night'] as const;
export type ThemeName = (typeof THEMES)[number];
/** The theme that was chosen on this device. */
export const theme = useLocalStorage<ThemeName>('karyotome.theme', 'day');

/** The nonce of this page, under which its policy lets the theme's styles be applied; none while developing. */
const pageNonce = (): string | undefined =>
  document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;

export const vuetify = createVuetify({
  // Texts are English; days are typed and shown in the order of the reader's locale.
  date: { locale: { en: readerLocale() } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    cspNonce: pageNonce(),
    defaultTheme: theme.value === 'night' ? 'night' : 'day',
    themes: {
      day: {
        dark: false,
        colors: {
          background: '#f3eee4',
          surface: '#fffcf6',
          'surface-variant': '#e6dccb',
          'on-surface-variant': '#3a342a',
          'surface-light': '#efe7d9',
          primary: '#2e4a3f',
          secondary: '#8f4a17',
          success: '#2f6b3c',
          warning: '#8a5a00',
          error: '#a3271c',
          info: '#2b5c78',
          'on-background': '#24211c',
          'on-surface': '#24211c',
        },
      },
      // For feeding in the dark: dim and warm, nothing white anywhere.
      night: {
        dark: true,
        colors: {
          background: '#0e0906',
          surface: '#19100a',
          'surface-variant': '#2c1c11',
          'on-surface-variant': '#d99a68',
          'surface-light': '#22160d',
          primary: '#e0864a',
          'on-primary': '#160c05',
          secondary: '#d99a68',
          'on-secondary': '#160c05',
          success: '#b98d3f',
          'on-success': '#160c05',
          warning: '#e09a3a',
          'on-warning': '#160c05',
          error: '#f06a4a',
          'on-error': '#160c05',
          info: '#c9925e',
          'on-info': '#160c05',
          'on-background': '#d99a68',
          'on-surface': '#d99a68',
        },
      },
    },
  },
  defaults: {
    VProgressLinear: { color: 'primary', rounded: true },
    VBtn: { rounded: 'lg', minHeight: 40 },
    VCard: { rounded: 'lg', elevation: 0, border: true },
    VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VNumberInput: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VDateInput: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto' },
    VFileInput: {
      variant: 'outlined',
      density: 'comfortable',
      hideDetails: 'auto',
      prependIcon: '',
      prependInnerIcon: '$file',
    },
    VDialog: { maxWidth: 560, scrollable: true },
    VBtnToggle: { mandatory: true, variant: 'outlined', divided: true, rounded: 'lg', color: 'primary' },
  },
});
