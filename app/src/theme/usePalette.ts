import { useTheme } from '@rneui/themed/dist/config';
import type { Palette } from './palette';

/** The colours of the theme in force. */
export function usePalette(): Palette {
  return useTheme().theme.colors as unknown as Palette;
}
