import { ThemeProvider } from '@rneui/themed/dist/config';
import { useEffect, type ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { shopPalette, yardPalette } from './palette';
import { rneThemes } from './rneTheme';

/** Gives everything below it the theme that the device or its holder asks for. */
export function ThemeRoot({ children }: { children: ReactNode }) {
  const { theme } = usePrefs();
  const system = useColorScheme();
  const wanted = theme === 'system' ? (system === 'light' ? 'yard' : 'shop') : theme;
  useEffect(() => {
    const palette = wanted === 'yard' ? yardPalette : shopPalette;
    // The page around the application: its colour shows at over-scroll, its variable in the focus ring.
    document.body.style.background = palette.ground;
    document.documentElement.style.setProperty('--focus', palette.accent);
    document.documentElement.style.colorScheme = wanted === 'yard' ? 'light' : 'dark';
    document.querySelector('meta[name="theme-color"]')?.setAttribute('content', palette.ground);
  }, [wanted]);
  return <ThemeProvider theme={rneThemes[wanted]}>{children}</ThemeProvider>;
}
