import type { PressureUnit, Unit } from '@keen-bleed/contract';
import { fromPsi, rounded, sayPressure, toPsi } from '@keen-bleed/core';
import { curveOf, judgeCrack, sayCurve, type CurvePoint } from '@keen-bleed/core/bench';
import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useFound } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { CurveDrawing } from './CurveDrawing';
import { earlierCurves, madeForPsi } from './madeFor';

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;
const MOST_PSI = 300;
/** On the way down after the way up, psi: the last of them with nothing asked for. */
const DOWN = [40, 20, 10, 0] as const;

interface CurvePadProps {
  check: Check;
  /** Pressures to press to on the way up, psi. */
  asked: readonly number[];
  /** The unit it is done at. */
  at: Unit | undefined;
  /** Told of what is read so far; null while there is nothing, words where something cannot be. */
  onChange: (answer: CheckAnswer | string | null) => void;
}

interface Row {
  psi: number;
  way: 'up' | 'down';
  inText: string;
  outText: string;
}

/** Control against delivery, read at each pressure in turn: what they come to stands beside them as they are read. */
export function CurvePad({ check, asked, at, onChange }: CurvePadProps) {
  const { unit } = usePrefs();
  const found = useFound(at?.id ?? null);
  const earlier = useMemo(() => earlierCurves(found.data ?? [], check), [found.data, check]);
  const madeFor = madeForPsi(at, check);
  const [compared, setCompared] = useState<'yes' | 'no' | null>(null);
  const [rows, setRows] = useState<readonly Row[]>(() => [
    ...asked.map((psi): Row => ({ psi, way: 'up', inText: '', outText: '' })),
    ...DOWN.map((psi): Row => ({ psi, way: 'down', inText: '', outText: '' })),
  ]);
  const read = useMemo(() => pointsOf(rows, unit), [rows, unit]);
  const isCompared = compared === 'yes';
  const curve = useMemo(
    () =>
      typeof read === 'string'
        ? null
        : curveOf(read, { divisionPsi: DIVISION_PSI, compared: isCompared }),
    [read, isCompared],
  );
  const tell = (next: readonly Row[], isSo: boolean) => {
    const points = pointsOf(next, unit);
    if (typeof points === 'string') return onChange(points);
    onChange(
      points.length === 0 ? null : { kind: 'points', points, ...(isSo ? { compared: true } : {}) },
    );
  };
  const change = (at: number, by: Partial<Row>) => {
    const next = rows.map((row, n) => (n === at ? { ...row, ...by } : row));
    setRows(next);
    tell(next, isCompared);
  };
  const isWhole = curve !== null && 'crack' in curve;
  const judged =
    isWhole && madeFor !== null
      ? judgeCrack(curve, madeFor, (psi) => sayPressure(psi, unit), isCompared)
      : null;
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
          tell(rows, next === 'yes');
        }}
      />
      <View style={{ flexDirection: 'row', gap: space.near }}>
        <Txt as="smallBold" style={{ flex: 1.2 }}>
          Press to
        </Txt>
        <Txt as="smallBold" style={{ flex: 1 }}>{`In, ${unit}`}</Txt>
        <Txt as="smallBold" style={{ flex: 1 }}>{`Out, ${unit}`}</Txt>
      </View>
      <View role="list" aria-label="Readings" style={{ gap: 2 }}>
        {rows.map(({ psi, way, inText, outText }, n) => {
          const to = sayAsked(psi, unit);
          const name = `${way === 'up' ? 'up' : 'down'} to ${to} ${unit}`;
          return (
            <View
              key={`${way} ${psi}`}
              role="listitem"
              style={{ flexDirection: 'row', gap: space.near, alignItems: 'center' }}
            >
              <Txt as="body" style={{ flex: 1.2 }}>
                {psi === 0 ? 'let go' : `${way} to ${to}`}
              </Txt>
              <View style={{ flex: 1 }}>
                <Field
                  numeric
                  isInRow
                  label={`In, ${name}`}
                  value={inText}
                  onChange={(text) => change(n, { inText: text })}
                />
              </View>
              <View style={{ flex: 1 }}>
                <Field
                  numeric
                  isInRow
                  label={`Out, ${name}`}
                  value={outText}
                  onChange={(text) => change(n, { outText: text })}
                />
              </View>
            </View>
          );
        })}
      </View>
      {typeof read !== 'string' && read.length > 1 ? (
        <CurveDrawing points={read} earlier={earlier} madeForPsi={madeFor} unit={unit} />
      ) : null}
      <View role="status" aria-label="What they come to">
        {typeof read === 'string' ? (
          <Txt tone="fail">{read}</Txt>
        ) : isWhole ? (
          <>
            <Txt as="bodyBold">{`${sayCurve(curve, unit).join('; ')}.`}</Txt>
            {judged ? (
              <>
                <VerdictSign verdict={judged.verdict} />
                <Txt as="small">{`It ${judged.said}.`}</Txt>
              </>
            ) : (
              <Txt as="small" tone="quiet">
                What the valve is made for is not written down: say it at the part, and this is
                judged by it.
              </Txt>
            )}
          </>
        ) : (
          <Txt as="small" tone="quiet">
            {curve && 'wants' in curve ? curve.wants : ''}
          </Txt>
        )}
      </View>
    </View>
  );
}

/** A pressure to press to, as the pad says it. */
const sayAsked = (psi: number, unit: PressureUnit) =>
  String(rounded(fromPsi(psi, unit), unit === 'bar' ? 1 : 0));

/** The rows that are whole, psi; words where one cannot be read. An empty row is one that was not made. */
function pointsOf(rows: readonly Row[], unit: PressureUnit): CurvePoint[] | string {
  const points: CurvePoint[] = [];
  for (const { inText, outText, psi, way } of rows) {
    if (inText.trim() === '' && outText.trim() === '') continue;
    const name =
      psi === 0 ? 'Let go' : `${way === 'up' ? 'Up' : 'Down'} to ${sayAsked(psi, unit)} ${unit}`;
    if (inText.trim() === '' || outText.trim() === '') return `${name}: read both gauges.`;
    const [from, to] = [inText, outText].map((text) => Number(text.trim().replace(',', '.')));
    const isNumber = (value: number | undefined): value is number =>
      value !== undefined && Number.isFinite(value) && value >= 0;
    if (!isNumber(from) || !isNumber(to)) {
      return `${name}: give two numbers, such as ${sayAsked(20, unit)} and ${sayAsked(16, unit)}.`;
    }
    const point: CurvePoint = [toPsi(from, unit), toPsi(to, unit)];
    if (Math.max(...point) > MOST_PSI) {
      return `${name}: no brake has over ${sayPressure(MOST_PSI, unit)}.`;
    }
    points.push(point);
  }
  return points;
}
