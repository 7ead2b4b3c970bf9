import type { PressureUnit } from '@keen-bleed/contract';
import { judgeFigure, type BenchFigure } from '@keen-bleed/core/bench';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { sayFigureTitle, sayLimit, sayNumber } from './figureWords';

interface FigureRowsProps {
  label: string;
  figures: readonly BenchFigure[];
  unit: PressureUnit;
}

/** The figures of a valve: what each is, with its doubt, what it is held to, and what that comes to. */
export function FigureRows({ label, figures, unit }: FigureRowsProps) {
  return (
    <View role="list" aria-label={label}>
      {figures.map((figure) => {
        const verdict = judgeFigure(figure);
        return (
          <View key={figure.id} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="body">{sayFigureTitle(figure, unit)}</Txt>
                {figure.limit ? (
                  <Txt as="small" tone="quiet">
                    {sayLimit(figure.limit, figure.unit, unit)}
                  </Txt>
                ) : null}
              </View>
              <View style={{ alignItems: 'flex-end', gap: space.hair }}>
                <Txt as="numberBold">{sayNumber(figure, unit)}</Txt>
                {verdict ? <VerdictSign verdict={verdict} as="smallBold" /> : null}
              </View>
            </View>
          </View>
        );
      })}
      <Rule />
    </View>
  );
}
