import type { ReactNode } from 'react';
import { Text, type TextStyle, type StyleProp } from 'react-native';
import type { Palette } from '../theme/palette';
import { typeScale, type TypeName } from '../theme/type';
import { usePalette } from '../theme/usePalette';

interface TxtProps {
  children: ReactNode;
  as?: TypeName;
  tone?: keyof Pick<Palette, 'ink' | 'quiet' | 'accent' | 'onAccent' | 'pass' | 'fail' | 'ground'>;
  /** Heading level; makes it a heading to assistive technology. */
  heading?: 1 | 2 | 3;
  /** Spoken when it changes. */
  live?: 'polite' | 'assertive';
  lines?: number;
  style?: StyleProp<TextStyle>;
  testID?: string;
}

/** Any text. Its size comes from the one scale and its colour from the theme. */
export function Txt({
  children,
  as = 'body',
  tone = 'ink',
  heading,
  live,
  lines,
  style,
  testID,
}: TxtProps) {
  const palette = usePalette();
  return (
    <Text
      {...(heading ? { role: 'heading' as const, 'aria-level': heading } : {})}
      {...(live ? { 'aria-live': live } : {})}
      {...(lines ? { numberOfLines: lines } : {})}
      {...(testID ? { testID } : {})}
      style={[typeScale[as], { color: palette[tone] }, style]}
    >
      {children}
    </Text>
  );
}
