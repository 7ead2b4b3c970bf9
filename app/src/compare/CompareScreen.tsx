import type { PressureUnit, RunRow } from '@keen-bleed/contract';
import { figureTitles, figureUnitIn, sayFigure, sayLimit, unitTitle } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useUnit, useUnitRuns } from '../data/useRecords';
import { sayDay } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { sayDrift } from '../unit/sayDrift';
import { trendsOf } from '../unit/trendsOf';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { VerdictShape, VerdictSign } from '../ui/VerdictSign';
import { Waiting } from '../ui/Waiting';
import { comparedFigures, type ComparedFigure } from './comparedFigures';

/** Two runs of a unit side by side, and where each figure is heading. */
export function CompareScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const unit = useUnit(id);
  const runs = useUnitRuns(id);
  const closed = runs.data?.filter((run) => run.closedAtMs !== null);
  const title = unit.data ? unitTitle(unit.data) : 'Compare';
  if (!closed) {
    return (
      <Screen title={title}>
        {runs.error ? (
          <Notice
            manner="trouble"
            title="The runs cannot be shown"
            text={runs.error.message}
            action={{ title: 'Try again', onPress: () => void runs.mutate() }}
          />
        ) : (
          <Waiting rows={6} />
        )}
      </Screen>
    );
  }
  if (closed.length < 2) {
    return (
      <Screen title={title}>
        <Notice
          title="Two closed runs are needed"
          text="Make another run; then they can stand side by side."
        />
      </Screen>
    );
  }
  return <Comparing title={title} runs={closed} />;
}

/** A run by its day, told apart from another of the same day. */
function namesOf(runs: readonly RunRow[]): string[] {
  const seen = new Map<string, number>();
  return runs.map((run) => {
    const day = `${sayDay(run.startedAtMs)}${run.rigTitle.includes(' + ') ? ', coupled' : ''}`;
    const times = (seen.get(day) ?? 0) + 1;
    seen.set(day, times);
    return times === 1 ? day : `${day} (${times})`;
  });
}

function Comparing({ title, runs }: { title: string; runs: readonly RunRow[] }) {
  const { unit } = usePrefs();
  const wide = useWide();
  const names = useMemo(() => namesOf(runs), [runs]);
  const [newer, setNewer] = useState(names[0] ?? '');
  const [older, setOlder] = useState(names[1] ?? '');
  const [nowMs] = useState(() => Date.now());
  const runOf = (name: string) => runs[names.indexOf(name)] ?? runs[0];
  const a = runOf(older);
  const b = runOf(newer);
  const drifts = useMemo(
    () => new Map(trendsOf(runs, unit).map((trend) => [trend.id, sayDrift(trend, unit, nowMs)])),
    [nowMs, runs, unit],
  );
  if (!a || !b) return null;
  const rows = comparedFigures(a, b);
  return (
    <Screen title={title} lead="Two runs side by side" width={860}>
      <View style={{ flexDirection: 'row', gap: space.step, marginTop: space.step }}>
        <Pick label="Earlier run" options={names} value={older} onChange={setOlder} />
        <Pick label="Later run" options={names} value={newer} onChange={setNewer} />
      </View>
      <View style={{ flexDirection: 'row', gap: space.step, marginVertical: space.step }}>
        {[a, b].map((run, index) => (
          <View key={index} style={{ flex: 1, gap: 2 }}>
            {run.verdict ? <VerdictSign verdict={run.verdict} /> : null}
            <Txt as="small" tone="quiet">
              {`${run.by}, ${run.ruleSetTitle}`}
            </Txt>
          </View>
        ))}
      </View>
      {a.id === b.id ? (
        <Notice title="The same run on both sides" text="Pick another on one of them." />
      ) : null}
      <ComparedHead before={wide ? older : 'earlier'} after={wide ? newer : 'later'} wide={wide} />
      <View role="list" aria-label="Figures of both runs">
        {rows.map((row) => (
          <View key={row.id} role="listitem">
            <Rule />
            <ComparedLine row={row} unit={unit} wide={wide} drift={drifts.get(row.id) ?? null} />
          </View>
        ))}
        <Rule />
      </View>
    </Screen>
  );
}

/** Room for a figure of one run, and for the change, px. */
const CELL = { phone: 76, wide: 150 };
const CHANGE = 80;

/** What stands in which column. */
function ComparedHead({ before, after, wide }: { before: string; after: string; wide: boolean }) {
  const cell = (title: string) => (
    <View style={{ width: wide ? CELL.wide : CELL.phone }}>
      <Txt as="small" tone="quiet">
        {title}
      </Txt>
    </View>
  );
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'flex-end',
        gap: space.near,
        paddingBottom: space.hair,
      }}
    >
      {wide ? <View style={{ flexGrow: 1, flexBasis: 200 }} /> : null}
      {cell(before)}
      {cell(after)}
      <View style={{ minWidth: CHANGE, flexGrow: wide ? 0 : 1, alignItems: 'flex-end' }}>
        <Txt as="small" tone="quiet">
          change
        </Txt>
      </View>
    </View>
  );
}

interface ComparedLineProps {
  row: ComparedFigure;
  unit: PressureUnit;
  wide: boolean;
  drift: string | null;
}

function ComparedLine({ row, unit, wide, drift }: ComparedLineProps) {
  const say = (value: number | null) => (value === null ? '—' : sayFigure(value, row.unit, unit));
  const size = say(row.change === null ? null : Math.abs(row.change));
  // A change that rounds to nothing has no direction.
  const sense = size === '0' ? '±' : (row.change ?? 0) > 0 ? '+' : '−';
  const change = row.change === null ? '' : `${sense}${size}`;
  const cell = (side: ComparedFigure['before']) => (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        width: wide ? CELL.wide : CELL.phone,
      }}
    >
      {side?.verdict ? <VerdictShape verdict={side.verdict} /> : <View style={{ width: 15 }} />}
      <Txt as="numberBold">{say(side?.value ?? null)}</Txt>
    </View>
  );
  return (
    <View style={{ paddingVertical: space.near, gap: 2 }}>
      <View
        style={{ flexDirection: 'row', alignItems: 'center', gap: space.near, flexWrap: 'wrap' }}
      >
        <Txt as="bodyBold" style={{ flexGrow: 1, flexBasis: wide ? 200 : '100%' }}>
          {figureTitles[row.id]}
          <Txt as="small" tone="quiet">{`  ${figureUnitIn(row.unit, unit)}`}</Txt>
        </Txt>
        {cell(row.before)}
        {cell(row.after)}
        <Txt
          as="number"
          tone="quiet"
          style={{ minWidth: CHANGE, flexGrow: wide ? 0 : 1, textAlign: 'right' }}
        >
          {change}
        </Txt>
      </View>
      {row.limit ? (
        <Txt as="small" tone="quiet">
          {`Limit ${sayLimit(row.limit, row.unit, unit)}`}
        </Txt>
      ) : null}
      {drift ? <Txt as="smallBold">{drift}</Txt> : null}
    </View>
  );
}
