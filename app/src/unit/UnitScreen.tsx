import type { RunRow } from '@keen-bleed/contract';
import {
  figureTitles,
  figureUnitIn,
  nextDue,
  rounded,
  sayFigureLine,
  unitTitle,
} from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { useUnit, useUnitRuns, useYard } from '../data/useRecords';
import { sayAgo, sayDay, sayDue } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { useBoxSize } from '../ui/useBoxSize';
import { openRunOf } from '../store/logs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { TrendLine } from '../trend/TrendLine';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { Waiting } from '../ui/Waiting';
import { AirSystem } from './AirSystem';
import { CoupledIn } from '../rig/CoupledIn';
import { GaugeChecks } from './GaugeChecks';
import { OpenFailures } from '../failures/OpenFailures';
import { failuresOf } from '../failures/failuresOf';
import { sayDrift } from './sayDrift';
import { trendsOf } from './trendsOf';
import { holdsOfRow, jobsOf } from '../data/standingOf';
import { HoldsNotice } from '../ui/HoldsNotice';
import { UnitJobs } from './UnitJobs';
import { OpenVisits, UnitVisits } from './UnitVisits';

/** Further back than this the date says enough, ms. */
const AGO_WITHIN_MS = 50 * 86_400_000;

/** Runs shown before “all runs” is asked for. */
const RUNS_AT_FIRST = 6;

/** One unit: its standing, its air system, how its figures go, and its runs. */
export function UnitScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const me = useMe();
  const wide = useWide();
  const unit = useUnit(id);
  const yard = useYard();
  const runs = useUnitRuns(id);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [openHere, setOpenHere] = useState<string | null>(null);
  const [nowMs] = useState(() => Date.now());
  useEffect(() => {
    void openRunOf(me, id).then((open) => setOpenHere(open?.id ?? null));
  }, [id, me]);

  if (!unit.data) {
    return (
      <Screen title="Rig sheet">
        {unit.error ? (
          <Notice
            manner="trouble"
            title="This unit cannot be shown"
            text={unit.error.message}
            action={{ title: 'Try again', onPress: () => void unit.mutate() }}
          />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  const found = unit.data;
  const isRetired = found.retiredAtMs !== null;
  // An interval starts at a pass or a fail; what was not finished or could not be told starts none.
  const tested = runs.data?.find(
    (run) =>
      run.closedAtMs !== null && !run.retest && (run.verdict === 'pass' || run.verdict === 'fail'),
  );
  const due = nextDue(tested?.closedAtMs ?? null, found.testEveryDays, nowMs);
  const last = runs.data?.find((run) => run.closedAtMs !== null);

  // What failed in any run and was not proven right since counts, not the last run alone.
  const row = yard.data?.find((each) => each.unit.id === id);
  const hasFailed = failuresOf(row).length > 0;

  const retire = async () => {
    try {
      await unit.mutate(await ask('POST', `/api/v1/units/${id}/retire`, { retired: !isRetired }), {
        revalidate: false,
      });
      // The sheet looks into the yard as well: what it has of it is old now.
      await yard.mutate();
      setTrouble(null);
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
  };

  return (
    <Screen
      title={unitTitle(found)}
      aside={
        hasFailed ? (
          <VerdictSign verdict="fail" as="heading" />
        ) : last?.verdict ? (
          <VerdictSign verdict={last.verdict} as="heading" />
        ) : undefined
      }
      lead={`${found.kind}, built ${found.buildYear} · ${isRetired ? 'retired' : !runs.data ? '…' : hasFailed ? 'retest owed' : sayDue(due)}`}
    >
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <HoldsNotice holds={holdsOfRow(row)} />
      <View
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          gap: space.step,
          marginTop: space.near,
        }}
      >
        {me.role !== 'viewer' && !isRetired ? (
          <Button
            manner="main"
            size="glove"
            title={openHere === null ? 'Start a run' : 'Go on with the run'}
            onPress={() =>
              router.push(openHere === null ? `/unit/${id}/start` : `/run/${openHere}`)
            }
            style={wide ? { minWidth: 190 } : { width: '100%' }}
          />
        ) : null}
        <Button
          size="glove"
          title="What is it?"
          label="What is it? Suspects for what was found"
          onPress={() => router.push(`/unit/${id}/suspects`)}
        />
        <Button size="glove" title="Bench" onPress={() => router.push(`/unit/${id}/bench`)} />
        <Button size="glove" title="Leak hunt" onPress={() => router.push(`/unit/${id}/hunt`)} />
        <Button size="glove" title="Water" onPress={() => router.push(`/unit/${id}/water`)} />
        {me.role !== 'viewer' ? (
          <Button size="glove" title="Edit" onPress={() => router.push(`/unit/${id}/edit`)} />
        ) : null}
        {me.role === 'lead' ? (
          <Button
            size="glove"
            title={isRetired ? 'Back in service' : 'Retire'}
            onPress={() => void retire()}
          />
        ) : null}
      </View>
      <OpenFailures unit={found} />
      <UnitJobs jobs={jobsOf(row)} />
      <OpenVisits unitId={id} />
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          gap: space.wide,
          marginTop: space.gap,
        }}
      >
        <View style={{ flex: wide ? 1 : undefined, gap: space.wide }}>
          {runs.error && !runs.data ? (
            <Notice
              manner="trouble"
              title="The runs cannot be shown"
              text={runs.error.message}
              action={{ title: 'Try again', onPress: () => void runs.mutate() }}
            />
          ) : null}
          {!runs.data && !runs.error ? <Waiting rows={4} /> : null}
          {runs.data?.length === 0 ? (
            <Notice
              title="No runs yet"
              text="The first run starts its history; from the second on, trends stand here."
            />
          ) : null}
          {runs.data ? <Trends runs={runs.data} nowMs={nowMs} /> : null}
        </View>
        <View style={{ width: wide ? 400 : '100%', gap: space.wide }}>
          {runs.data && runs.data.length > 0 ? (
            <RunList runs={runs.data} nowMs={nowMs} unitId={id} />
          ) : null}
          <UnitVisits unit={found} nowMs={nowMs} />
          <CoupledIn unit={found} />
          <GaugeChecks unit={found} />
          <AirSystem unit={found} />
        </View>
      </View>
    </Screen>
  );
}

const COLUMN_GAP = 24;
/** Width, px, from which the trends stand two abreast. */
const TWO_COLUMNS_FROM = 560;

function Trends({ runs, nowMs }: { runs: readonly RunRow[]; nowMs: number }) {
  const { unit } = usePrefs();
  const [box, onBox] = useBoxSize();
  const rigs = useMemo(() => [...new Set(runs.map((run) => run.rigTitle))], [runs]);
  const [chosen, setChosen] = useState<string | null>(null);
  // What a rig loses is no measure of its unit: each is followed by itself.
  const rig = chosen ?? rigs[0] ?? '';
  const trends = useMemo(
    () =>
      trendsOf(
        runs.filter((run) => run.rigTitle === rig),
        unit,
      ),
    [rig, runs, unit],
  );
  if (trends.length === 0 && rigs.length < 2) return null;
  const columns = box.width >= TWO_COLUMNS_FROM ? 2 : 1;
  const width = Math.floor((box.width - (columns - 1) * COLUMN_GAP) / columns);
  const say = (value: number) => rounded(value, value < 10 ? 1 : 0);
  return (
    <View
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        columnGap: COLUMN_GAP,
        rowGap: space.gap,
      }}
      onLayout={onBox}
    >
      {rigs.length > 1 ? (
        <View style={{ width: '100%' }}>
          <Segments
            label="Figures of"
            options={rigs.map((title) => ({ value: title, title }))}
            value={rig}
            onChange={setChosen}
          />
        </View>
      ) : null}
      {trends.length === 0 ? (
        <Txt tone="quiet">From its second run on, the figures of this rig stand here.</Txt>
      ) : null}
      {(box.width > 0 ? trends : []).map((trend) => (
        <View key={trend.id} style={{ gap: space.hair, width }}>
          <View
            style={{
              flexDirection: 'row',
              alignItems: 'baseline',
              gap: space.near,
            }}
          >
            <Txt as="bodyBold" heading={2}>
              {figureTitles[trend.id]}
            </Txt>
            <Txt as="numberBold">
              {trend.points.at(-1)?.isBound ? 'under ' : ''}
              {say(trend.points.at(-1)?.value ?? 0)}
            </Txt>
            <Txt as="small" tone="quiet">
              {figureUnitIn(trend.figureUnit, unit)}
            </Txt>
          </View>
          {box.width > 0 ? (
            <TrendLine
              points={trend.points}
              min={trend.min}
              max={trend.max}
              say={say}
              label={figureTitles[trend.id]}
              width={width}
            />
          ) : null}
          <DriftLine words={sayDrift(trend, unit, nowMs)} />
        </View>
      ))}
    </View>
  );
}

function DriftLine({ words }: { words: string | null }) {
  return words ? <Txt as="smallBold">{words}</Txt> : null;
}

function RunList({
  runs,
  nowMs,
  unitId,
}: {
  runs: readonly RunRow[];
  nowMs: number;
  unitId: string;
}) {
  const { unit } = usePrefs();
  const [all, setAll] = useState(false);
  const shown = all ? runs : runs.slice(0, RUNS_AT_FIRST);
  return (
    <View>
      <Txt as="heading" heading={2}>
        Runs
      </Txt>
      <View role="list" aria-label="Runs">
        {shown.map((run) => (
          <View key={run.id} role="listitem">
            <Rule />
            <LinkTo to={`/run/${run.id}`} style={{ paddingVertical: space.near, gap: 2 }}>
              <View
                style={{
                  flexDirection: 'row',
                  justifyContent: 'space-between',
                  gap: space.step,
                }}
              >
                <Txt as="bodyBold">{sayDay(run.startedAtMs)}</Txt>
                {run.verdict && run.closedAtMs !== null ? (
                  <VerdictSign verdict={run.verdict} />
                ) : (
                  <Txt as="bodyBold">open</Txt>
                )}
              </View>
              <Txt as="small" tone="quiet">
                {[
                  run.retest ? 'Retest' : null,
                  run.rigTitle.includes(' + ') ? run.rigTitle : null,
                  run.decisive ? sayFigureLine(run.decisive, unit) : run.headline,
                  run.by,
                  nowMs - run.startedAtMs < AGO_WITHIN_MS ? sayAgo(run.startedAtMs, nowMs) : null,
                ]
                  .filter((each) => each !== null)
                  .join(' · ')}
              </Txt>
            </LinkTo>
          </View>
        ))}
        <Rule />
      </View>
      {runs.filter((run) => run.closedAtMs !== null).length > 1 ? (
        <LinkTo to={`/unit/${unitId}/compare`}>
          <Txt as="bodyBold" tone="accent">
            Compare two runs
          </Txt>
        </LinkTo>
      ) : null}
      {runs.length > RUNS_AT_FIRST ? (
        <Button
          manner="quiet"
          title={all ? 'Newest only' : `All ${runs.length} runs`}
          onPress={() => setAll(!all)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}
