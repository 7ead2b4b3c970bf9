import type { Figure, PressureUnit } from '@keen-bleed/contract';
import {
  figureTitles,
  figureUnitIn,
  headVerdict,
  sayChance,
  sayFigure,
  sayHeadNumber,
  sayLimit,
  sayOtherView,
} from '@keen-bleed/core';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';

const tagWords = {
  std: 'standard',
  trade: 'trade practice',
  calc: 'computed',
  memory: 'from memory',
  house: 'house',
  maker: 'maker',
} as const;

interface FigureListProps {
  figures: readonly Figure[];
  unit: PressureUnit;
  /** With why, sureness and source under each; without, one line each. */
  full?: boolean;
}

/** The figures of a run, each with its limit and verdict. */
export function FigureList({ figures, unit, full = false }: FigureListProps) {
  return (
    <View role="list" aria-label="Figures">
      {figures.map((figure) => {
        const verdict = headVerdict(figure);
        return (
          <View key={figure.id} role="listitem">
            <Rule />
            <View
              style={{
                paddingVertical: full ? space.step : space.near,
                gap: space.hair,
              }}
            >
              <View
                style={{
                  flexDirection: 'row',
                  flexWrap: 'wrap',
                  alignItems: 'center',
                  columnGap: space.step,
                }}
              >
                <Txt as={full ? 'bodyBold' : 'body'} style={{ flexGrow: 1, flexBasis: 130 }}>
                  {figureTitles[figure.id]}
                </Txt>
                <View
                  style={{
                    flexDirection: 'row',
                    alignItems: 'baseline',
                    gap: 5,
                    justifyContent: 'flex-end',
                    minWidth: 110,
                  }}
                >
                  <Txt as="numberBold">{sayHeadNumber(figure, unit)}</Txt>
                  <Txt as="small" tone="quiet">
                    {figureUnitIn(figure.unit, unit)}
                  </Txt>
                </View>
                <View style={{ minWidth: 124, alignItems: 'flex-start' }}>
                  {verdict ? <VerdictSign verdict={verdict} /> : null}
                </View>
              </View>
              {full ? <FigureDetail figure={figure} unit={unit} /> : null}
            </View>
          </View>
        );
      })}
      <Rule />
    </View>
  );
}

function FigureDetail({ figure, unit }: { figure: Figure; unit: PressureUnit }) {
  const { limit, standardUncertainty, within, heads } = figure;
  const isSure = heads !== 'as-read';
  const sure = [
    sayOtherView(figure, unit),
    !isSure || standardUncertainty === null || figure.atMost !== null
      ? null
      : `± ${sayFigure(2 * standardUncertainty, figure.unit, unit)} ${figureUnitIn(figure.unit, unit)}`,
    !isSure || within === null ? null : `within the limit: ${sayChance(within)}`,
  ].filter((each) => each !== null);
  return (
    <View style={{ gap: 2 }}>
      <Txt>{figure.why}</Txt>
      {figure.means ? <Txt tone="quiet">{figure.means}</Txt> : null}
      {figure.settle ? (
        headVerdict(figure) === 'cant-tell' ? (
          <Txt as="bodyBold">{figure.settle}</Txt>
        ) : (
          <Txt as="small" tone="quiet">
            {`To be sure: ${figure.settle}`}
          </Txt>
        )
      ) : null}
      {sure.length > 0 ? (
        <Txt as="small" tone="quiet">
          {sure.join(' · ')}
        </Txt>
      ) : null}
      {limit ? (
        <Txt as="small" tone="quiet">
          {`Limit ${sayLimit(limit, figure.unit, unit)}: ${limit.source} (${tagWords[limit.tag]})`}
        </Txt>
      ) : null}
    </View>
  );
}
