import Svg, { Path, Rect } from 'react-native-svg';

/** Light modules around a code, without which phones do not find it (ISO/IEC 18004). */
const QUIET = 4;

/** A QR code: dark on light in both themes, as every camera expects it. */
export function QrCode({ rows, label }: { rows: readonly string[]; label: string }) {
  const size = rows.length + 2 * QUIET;
  const dark = rows
    .flatMap((row, y) =>
      [...row].flatMap((module, x) =>
        module === '1' ? [`M${x + QUIET} ${y + QUIET}h1v1h-1z`] : [],
      ),
    )
    .join('');
  return (
    <Svg
      width={220}
      height={220}
      viewBox={`0 0 ${size} ${size}`}
      accessibilityRole="image"
      aria-label={label}
    >
      <Rect x={0} y={0} width={size} height={size} fill="#ffffff" />
      <Path d={dark} fill="#000000" />
    </Svg>
  );
}
