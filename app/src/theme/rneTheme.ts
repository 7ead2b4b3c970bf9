import { createTheme } from '@rneui/themed/dist/config';
import { shopPalette, yardPalette, type Palette } from './palette';

const colors = (palette: Palette) => ({
  ...palette,
  primary: palette.accent,
  secondary: palette.edge,
  background: palette.ground,
  white: palette.ground,
  black: palette.ink,
  grey0: palette.ink,
  grey1: palette.ink,
  grey2: palette.quiet,
  grey3: palette.quiet,
  grey4: palette.edge,
  grey5: palette.raised,
  greyOutline: palette.edge,
  searchBg: palette.raised,
  success: palette.pass,
  error: palette.fail,
  warning: palette.fail,
  divider: palette.rule,
  disabled: palette.raised,
});

const themeOf = (mode: 'dark' | 'light') =>
  createTheme({
    mode,
    lightColors: colors(yardPalette),
    darkColors: colors(shopPalette),
  });

/** The themes of the component library; made once, since one made inside a component resets itself. */
export const rneThemes = {
  shop: themeOf('dark'),
  yard: themeOf('light'),
} as const;
