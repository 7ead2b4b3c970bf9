import type { Verdict } from '@keen-bleed/contract';
import { verdictWords } from '@keen-bleed/core';
import { View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import type { TypeName } from '../theme/type';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

/** The shape of a verdict: solid square, notched flag, dashed diamond, open square with a gap. */
export function VerdictShape({ verdict, size = 15 }: { verdict: Verdict; size?: number }) {
  const palette = usePalette();
  return (
    <Svg width={size} height={size} viewBox="0 0 16 16" aria-hidden>
      {verdict === 'pass' && <Rect x={1} y={1} width={14} height={14} fill={palette.pass} />}
      {verdict === 'fail' && <Path d="M1 1h14l-5 7 5 7H1z" fill={palette.fail} />}
      {verdict === 'cant-tell' && (
        <Path
          d="M8 1.2 14.8 8 8 14.8 1.2 8z"
          fill="none"
          stroke={palette.ink}
          strokeWidth={2}
          strokeDasharray="3.4 2.4"
        />
      )}
      {verdict === 'incomplete' && (
        <>
          <Path d="M10 2H2v12h12v-5" fill="none" stroke={palette.quiet} strokeWidth={2} />
          <Line x1={13} y1={2} x2={14} y2={2} stroke={palette.quiet} strokeWidth={2} />
        </>
      )}
    </Svg>
  );
}

/** A verdict as shape, word and colour together. */
export function VerdictSign({ verdict, as = 'bodyBold' }: { verdict: Verdict; as?: TypeName }) {
  const tone = verdict === 'pass' ? 'pass' : verdict === 'fail' ? 'fail' : 'ink';
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <VerdictShape verdict={verdict} />
      <Txt as={as} tone={tone}>
        {verdictWords[verdict]}
      </Txt>
    </View>
  );
}
