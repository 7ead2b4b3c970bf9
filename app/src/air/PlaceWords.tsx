import { Text as SvgText } from 'react-native-svg';
import { NUMERAL_FACE, TEXT_FACE } from '../theme/type';
import { usePalette } from '../theme/usePalette';

interface PlaceWordsProps {
  /** What it is called in a small box. */
  short: string;
  port: string | null;
  box: { x: number; y: number; width: number; height: number };
  said: string | null;
}

/** Longest name that fits a box. */
const FITS = 21;

/** Name, ports and pressure of a place, in its box. */
export function PlaceWords({ short: bare, port, box, said }: PlaceWordsProps) {
  const palette = usePalette();
  const short = bare.length > FITS ? `${bare.slice(0, FITS - 1)}…` : bare;
  return (
    <>
      <SvgText
        x={box.x + 6}
        y={box.y + 14}
        fontSize={11.5}
        fontFamily={TEXT_FACE}
        fill={palette.ink}
      >
        {short}
      </SvgText>
      {port === null ? null : (
        <SvgText
          x={box.x + 6}
          y={box.y + box.height - 9}
          fontSize={12}
          fontFamily={NUMERAL_FACE}
          fill={palette.quiet}
        >
          {port}
        </SvgText>
      )}
      {said === null ? null : (
        <SvgText
          x={box.x + box.width - 6}
          y={box.y + box.height - 9}
          fontSize={12}
          fontFamily={NUMERAL_FACE}
          fill={palette.ink}
          textAnchor="end"
        >
          {said}
        </SvgText>
      )}
    </>
  );
}
