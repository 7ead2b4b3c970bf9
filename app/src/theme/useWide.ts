import { useWindowDimensions } from 'react-native';
import { WIDE_FROM } from './space';

/** Whether there is room for panes side by side. */
export function useWide(): boolean {
  return useWindowDimensions().width >= WIDE_FROM;
}
