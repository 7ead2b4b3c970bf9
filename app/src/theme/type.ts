import type { TextStyle } from 'react-native';

/** Face for text: made for legibility. */
export const TEXT_FACE = "'Atkinson Hyperlegible', sans-serif";
/** Face for numerals: drawn for instruments. */
export const NUMERAL_FACE = "B612, 'Atkinson Hyperlegible', sans-serif";

const text = (fontSize: number, lineHeight: number, bold = false): TextStyle => ({
  fontFamily: TEXT_FACE,
  fontSize,
  lineHeight,
  fontWeight: bold ? '700' : '400',
});

const numeral = (fontSize: number, lineHeight: number, bold = false): TextStyle => ({
  fontFamily: NUMERAL_FACE,
  fontSize,
  lineHeight,
  fontWeight: bold ? '700' : '400',
  fontVariant: ['tabular-nums'],
});

/** Every size of type in the product. */
export const typeScale = {
  screenTitle: text(28, 34, true),
  stepTitle: text(24, 29, true),
  heading: text(19, 25, true),
  body: text(17, 24),
  bodyBold: text(17, 24, true),
  small: text(15, 21),
  smallBold: text(15, 21, true),
  pad: text(28, 34, true),
  call: text(56, 62, true),
  number: numeral(17, 24),
  numberBold: numeral(17, 24, true),
  numberSmall: numeral(14, 20),
  numberLarge: numeral(26, 32, true),
  clock: numeral(60, 66, true),
} as const;

export type TypeName = keyof typeof typeScale;
