import type { School, Unit } from '@keen-bleed/contract';
import { pressuresIn, sayPressure } from '@keen-bleed/core';
import { curveOf, type CurvePoint } from '@keen-bleed/core/bench';
import { figuresOfCheck, type Check, type CheckAnswer } from '@keen-bleed/core/checks';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useFound } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';
import { askedRows, pointsOf, rowName, type AskedRow } from './askedRows';
import { sayPort } from './figureWords';
import { CurveDrawing } from './CurveDrawing';
import { bandOf } from './curveBand';
import { FigureRows } from './FigureRows';
import { earlierCurves, madeForPsi } from './madeFor';
import { PointsFromFile } from './PointsFromFile';
import { TakeBoth } from './TakeBoth';

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;

interface CurvePadProps {
  check: Check;
  /** The unit it is done at. */
  at: Unit | undefined;
  /** Told of what is read so far; null while there is nothing, words where something cannot be. */
  onChange: (answer: CheckAnswer | string | null) => void;
}

/** Two ports read against each other at each pressure in turn: what they come to stands beside them as they are read. */
export function CurvePad({ check, at, onChange }: CurvePadProps) {
  const { unit } = usePrefs();
  const school: School = at?.ports ?? 'words';
  const found = useFound(at?.id ?? null);
  const earlier = useMemo(() => earlierCurves(found.data ?? [], check), [found.data, check]);
  const madeFor = madeForPsi(at, check);
  const [compared, setCompared] = useState<'yes' | 'no' | null>(null);
  const [rows, setRows] = useState<readonly AskedRow[]>(() => askedRows(check));
  const [recorded, setRecorded] = useState<{ name: string; points: readonly CurvePoint[] } | null>(
    null,
  );
  const read = useMemo(
    () => (recorded ? [...recorded.points] : pointsOf(rows, unit)),
    [recorded, rows, unit],
  );
  const isCompared = compared === 'yes';
  const answer = useMemo(
    (): CheckAnswer | null =>
      typeof read === 'string' || read.length === 0
        ? null
        : { kind: 'points', points: read, ...(isCompared ? { compared: true } : {}) },
    [read, isCompared],
  );
  const figures = useMemo(
    () => (answer ? figuresOfCheck(check, answer, at) : null),
    [answer, at, check],
  );
  const odd = useMemo(() => oddOf(check, answer), [answer, check]);
  const tell = (points: readonly CurvePoint[] | string, isSo: boolean) => {
    if (typeof points === 'string') return onChange(points);
    onChange(
      points.length === 0 ? null : { kind: 'points', points, ...(isSo ? { compared: true } : {}) },
    );
  };
  const change = (row: number, by: Partial<AskedRow>) => {
    const next = rows.map((each, n) => (n === row ? { ...each, ...by } : each));
    setRows(next);
    tell(pointsOf(next, unit), isCompared);
  };
  const take = (points: readonly CurvePoint[], name: string) => {
    setRecorded({ name, points });
    tell(points, isCompared);
  };
  if (check.answer.kind !== 'points') return null;
  const [from, to] = [check.answer.from, check.answer.to].map((name) =>
    capital(sayPort(name, school)),
  ) as [string, string];
  return (
    <View style={{ gap: space.near }}>
      <Choice
        label={`Were the two gauges compared at zero and at ${sayPressure(60, unit)}?`}
        options={[
          { value: 'yes', title: 'yes' },
          { value: 'no', title: 'no' },
        ]}
        value={compared ?? ('' as never)}
        onChange={(next) => {
          setCompared(next);
          tell(read, next === 'yes');
        }}
      />
      {recorded ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
          <Txt style={{ flex: 1 }}>{`${recorded.points.length} points from ${recorded.name}`}</Txt>
          <Button
            title="Type them instead"
            onPress={() => {
              setRecorded(null);
              tell(pointsOf(rows, unit), isCompared);
            }}
          />
        </View>
      ) : (
        <>
          <View style={{ flexDirection: 'row', gap: space.near }}>
            <Txt as="smallBold" style={{ flex: 1.2 }}>
              {rows[0]?.way === 'down' ? 'Let down' : 'Press'}
            </Txt>
            <Txt as="smallBold" style={{ flex: 1 }}>{`${from}, ${unit}`}</Txt>
            <Txt as="smallBold" style={{ flex: 1 }}>{`${to}, ${unit}`}</Txt>
          </View>
          <View role="list" aria-label="Readings" style={{ gap: 2 }}>
            {rows.map((row, n) => {
              const name = rowName(row, unit);
              return (
                <View
                  key={`${row.way} ${row.psi}`}
                  role="listitem"
                  style={{ flexDirection: 'row', gap: space.near, alignItems: 'center' }}
                >
                  <Txt as="body" style={{ flex: 1.2 }}>
                    {name.replace(` ${unit}`, '')}
                  </Txt>
                  <View style={{ flex: 1 }}>
                    <Field
                      numeric
                      isInRow
                      label={`${from}, ${name}`}
                      value={row.inText}
                      onChange={(text) => change(n, { inText: text })}
                    />
                  </View>
                  <View style={{ flex: 1 }}>
                    <Field
                      numeric
                      isInRow
                      label={`${to}, ${name}`}
                      value={row.outText}
                      onChange={(text) => change(n, { outText: text })}
                    />
                  </View>
                </View>
              );
            })}
          </View>
          <TakeBoth
            check={check}
            unitId={at?.id ?? null}
            school={school}
            unit={unit}
            next={rows.findIndex(({ inText, outText }) => inText === '' && outText === '')}
            onTake={(row, inText, outText) => change(row, { inText, outText })}
          />
          <PointsFromFile from={from} to={to} onPoints={take} />
        </>
      )}
      {typeof read !== 'string' && read.length > 1 ? (
        <CurveDrawing
          points={read}
          earlier={earlier}
          band={bandOf(check, madeFor)}
          names={[from, to]}
          unit={unit}
        />
      ) : null}
      <View role="status" aria-label="What they come to">
        {typeof read === 'string' ? (
          <Txt tone="fail">{read}</Txt>
        ) : figures === null ? null : 'wants' in figures ? (
          <Txt as="small" tone="quiet">
            {pressuresIn(figures.wants, unit)}
          </Txt>
        ) : (
          <>
            <FigureRows label="Figures" figures={figures} unit={unit} />
            {odd === null ? null : <Txt as="small">{odd}</Txt>}
            {check.part.includes('relay') && madeFor === null ? (
              <Txt as="small" tone="quiet">
                What the valve is made for is not written down: say it at the part, and its crack
                pressure is judged by it.
              </Txt>
            ) : null}
            {isCompared ? null : (
              <Txt as="small" tone="quiet">
                {`Two gauges compared with each other at zero and ${sayPressure(60, unit)} would narrow this.`}
              </Txt>
            )}
          </>
        )}
      </View>
    </View>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Points that do not go with the others, where the valve is asked to follow: to be read again. */
function oddOf(check: Check, answer: CheckAnswer | null): string | null {
  if (answer?.kind !== 'points' || check.answer.kind !== 'points') return null;
  const { as = 'follows' } = check.answer;
  if (as !== 'follows') return null;
  const curve = curveOf(answer.points, {
    divisionPsi: DIVISION_PSI,
    compared: answer.compared ?? false,
  });
  if (!('crack' in curve) || curve.odd.length === 0) return null;
  const many = curve.odd.length > 1;
  return `Point ${curve.odd.map((n) => n + 1).join(' and ')} ${many ? 'do' : 'does'} not go with the others: read ${many ? 'them' : 'it'} again.`;
}
