import type { Rig, YardRow } from '@keen-bleed/contract';
import {
  nextDue,
  sayFailure,
  sayFigureLine,
  unitTitle,
  verdictWords,
  type Due,
} from '@keen-bleed/core';
import { failuresOf } from '../failures/failuresOf';
import { holdsOfRow, jobsOf } from '../data/standingOf';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRigs, useYard } from '../data/useRecords';
import { sayAgo, sayDue } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Spark } from '../trend/Spark';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { Waiting } from '../ui/Waiting';
import { Button } from '../ui/Button';

/** Least top of the small leak line's scale, psi/min, so that a tight unit's noise does not look like a story. */
const LEAK_SPARK_FLOOR = 3;

interface Listed {
  row: YardRow;
  due: Due;
}

/** Failing units first, then what is due soonest. */
function inOrder(rows: readonly YardRow[], nowMs: number): Listed[] {
  const rank = ({ row, due }: Listed) =>
    holdsOfRow(row).length > 0
      ? -1
      : failuresOf(row).length > 0
        ? 0
        : due.standing === 'later'
          ? 2
          : 1;
  return rows
    .map((row) => ({
      row,
      due: nextDue(row.lastCompleteAtMs, row.unit.testEveryDays, nowMs),
    }))
    .sort(
      (a, b) =>
        rank(a) - rank(b) ||
        (a.due.dueAtMs ?? 0) - (b.due.dueAtMs ?? 0) ||
        a.row.unit.number.localeCompare(b.row.unit.number),
    );
}

function count(number: number, one: string, many: string): string {
  const words = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
  return `${words[number] ?? number} ${number === 1 ? one : many}`;
}

/** The units in care: what failed, what is due, what is well. */
export function YardScreen() {
  const me = useMe();
  const wide = useWide();
  const { data, error, mutate } = useYard();
  const rigs = useRigs();
  const [retired, setRetired] = useState(false);
  const [nowMs] = useState(() => Date.now());
  const listed = useMemo(
    () =>
      inOrder(
        (data ?? []).filter((row) => (row.unit.retiredAtMs !== null) === retired),
        nowMs,
      ),
    [data, nowMs, retired],
  );
  const held = listed.filter(({ row }) => holdsOfRow(row).length > 0).length;
  const failing = listed.filter(({ row }) => failuresOf(row).length > 0).length;
  const due = listed.filter((each) => each.due.standing !== 'later').length;
  const sentence = `${held > 0 ? `${count(held, 'out of service', 'out of service')}, ` : ''}${count(failing, 'has failed', 'have failed')}, ${count(due, 'due or overdue', 'due or overdue')}`;
  const anyRetired = data?.some((row) => row.unit.retiredAtMs !== null) ?? false;
  return (
    <Screen
      title={retired ? 'Retired units' : 'Yard'}
      aside={wide ? undefined : <OutboxSign />}
      lead={
        data
          ? retired
            ? 'Kept with all their runs'
            : listed.length > 0
              ? sentence.charAt(0).toUpperCase() + sentence.slice(1)
              : undefined
          : undefined
      }
    >
      {error && !data ? (
        <Notice
          manner="trouble"
          title="The yard cannot be shown"
          text={error.message}
          action={{ title: 'Try again', onPress: () => void mutate() }}
        />
      ) : null}
      {!data && !error ? <Waiting rows={8} /> : null}
      {data && listed.length === 0 ? (
        <Notice
          title="No units here yet"
          text={
            me.role === 'viewer'
              ? 'They stand here as soon as a technician has added them.'
              : 'Add the first one: its tanks, its governor and its gauge. Then it can be run.'
          }
        />
      ) : null}
      {wide && listed.length > 0 ? (
        <View style={{ marginTop: space.near }}>
          <ColumnHeads />
        </View>
      ) : null}
      <View role="list" aria-label="Units" style={{ marginTop: wide ? 0 : space.near }}>
        {listed.map((each) => (
          <YardLine key={each.row.unit.id} {...each} nowMs={nowMs} />
        ))}
        {listed.length > 0 ? <Rule /> : null}
      </View>
      {!retired && data && rigs.data ? <RigLines rigs={rigs.data} rows={data} /> : null}
      <View
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          gap: space.step,
          marginTop: space.gap,
        }}
      >
        {me.role !== 'viewer' ? (
          <LinkTo to="/unit/new">
            <Txt as="bodyBold" tone="accent">
              Add a unit
            </Txt>
          </LinkTo>
        ) : null}
        {me.role !== 'viewer' && !retired && listed.length > 1 ? (
          <LinkTo to="/couple">
            <Txt as="bodyBold" tone="accent">
              Couple a rig
            </Txt>
          </LinkTo>
        ) : null}
        {anyRetired ? (
          <Button
            manner="quiet"
            title={retired ? 'Back to the yard' : 'Retired units'}
            onPress={() => setRetired(!retired)}
          />
        ) : null}
      </View>
    </Screen>
  );
}

/** What stands coupled, each rig by what is in front. */
function RigLines({ rigs, rows }: { rigs: readonly Rig[]; rows: readonly YardRow[] }) {
  if (rigs.length === 0) return null;
  return (
    <View style={{ marginTop: space.wide }}>
      <Txt as="heading" heading={2} style={{ paddingBottom: space.hair }}>
        Coupled
      </Txt>
      <View role="list" aria-label="Rigs">
        {rigs.map((rig) => {
          const units = rig.unitIds.flatMap(
            (id) => rows.find((row) => row.unit.id === id)?.unit ?? [],
          );
          return (
            <View key={rig.id} role="listitem">
              <Rule />
              <LinkTo to={`/unit/${rig.unitIds[0] ?? ''}`} style={{ paddingVertical: space.near }}>
                <Txt as="bodyBold">{units.map(unitTitle).join(' + ')}</Txt>
              </LinkTo>
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}

/** Widths of the columns of a wide yard, px; the finding takes what is left. */
const columns = { unit: 190, verdict: 150, tested: 120, due: 172, trend: 80 };

function ColumnHeads() {
  const head = (title: string, width: number | null) => (
    <Txt as="small" tone="quiet" style={width === null ? { flex: 1 } : { width }}>
      {title}
    </Txt>
  );
  return (
    <View
      aria-hidden
      style={{
        flexDirection: 'row',
        gap: space.step,
        paddingBottom: space.hair,
      }}
    >
      {head('Unit', columns.unit)}
      {head('Standing', columns.verdict)}
      {head('What stood out', null)}
      {head('Tested', columns.tested)}
      {head('Next', columns.due)}
      {head('Static leak', columns.trend)}
    </View>
  );
}

function YardLine({ row, due, nowMs }: Listed & { nowMs: number }) {
  const { unit: sayIn } = usePrefs();
  const wide = useWide();
  const { unit, last, open, retest } = row;
  const failures = failuresOf(row);
  const failing = failures.length > 0;
  const holds = holdsOfRow(row);
  const isHeld = holds.length > 0;
  const [job] = jobsOf(row);
  const [failure] = failures;
  const more = failures.length > 1 ? `, and ${failures.length - 1} more` : '';
  const what = !last
    ? 'No run yet'
    : failure
      ? `${sayFailure(failure, sayIn)}${more}`
      : isHeld
        ? (holds[0] ?? '')
        : last.decisive && last.verdict !== 'incomplete'
          ? sayFigureLine(last.decisive, sayIn)
          : last.headline;
  const tested = last ? sayAgo(last.closedAtMs, nowMs) : 'never';
  const next =
    unit.retiredAtMs !== null
      ? 'retired'
      : isHeld
        ? 'out of service'
        : failing
          ? 'retest owed'
          : last
            ? sayDue(due)
            : 'first test';
  const nextBold = unit.retiredAtMs === null && (isHeld || failing || due.standing !== 'later');
  const jobWords = job ? `Job at ${job.station}: ${job.line}` : null;
  const retestWords = retest
    ? `Retest ${verdictWords[retest.verdict]}, ${sayAgo(retest.closedAtMs, nowMs)}`
    : null;
  const openWords = open ? `Run open since ${sayAgo(open.startedAtMs, nowMs)}, ${open.by}` : null;
  return (
    <View role="listitem">
      <Rule heavy={isHeld} />
      <LinkTo to={`/unit/${unit.id}`} style={{ paddingVertical: space.step }}>
        {wide ? (
          <View
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              gap: space.step,
            }}
          >
            <View style={{ width: columns.unit }}>
              <Txt as="heading" heading={2}>
                {unitTitle(unit)}
              </Txt>
            </View>
            <View style={{ width: columns.verdict }}>
              {last ? <VerdictSign verdict={failing ? 'fail' : last.verdict} /> : null}
            </View>
            <View style={{ flex: 1 }}>
              <Txt>{what}</Txt>
              {jobWords ? (
                <Txt as="small" tone="quiet">
                  {jobWords}
                </Txt>
              ) : null}
              {retestWords ? <Txt as="small">{retestWords}</Txt> : null}
              {openWords ? <Txt as="smallBold">{openWords}</Txt> : null}
            </View>
            <Txt tone="quiet" style={{ width: columns.tested }}>
              {tested}
            </Txt>
            <Txt
              as={nextBold ? 'bodyBold' : 'body'}
              tone={nextBold ? 'ink' : 'quiet'}
              style={{ width: columns.due }}
            >
              {next}
            </Txt>
            <View style={{ width: columns.trend }}>
              <Spark values={row.leakTrendPsiPerMin} floor={LEAK_SPARK_FLOOR} />
            </View>
          </View>
        ) : (
          <View
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              gap: space.step,
            }}
          >
            <View style={{ flex: 1, gap: 2 }}>
              <View
                style={{
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: space.step,
                  flexWrap: 'wrap',
                }}
              >
                <Txt as="heading" heading={2}>
                  {unitTitle(unit)}
                </Txt>
                {last ? <VerdictSign verdict={failing ? 'fail' : last.verdict} /> : null}
              </View>
              <Txt>{what}</Txt>
              <Txt as="small" tone="quiet">
                {last ? `${tested} · ` : ''}
                <Txt as={nextBold ? 'smallBold' : 'small'} tone={nextBold ? 'ink' : 'quiet'}>
                  {next}
                </Txt>
              </Txt>
              {jobWords ? (
                <Txt as="small" tone="quiet">
                  {jobWords}
                </Txt>
              ) : null}
              {retestWords ? <Txt as="small">{retestWords}</Txt> : null}
              {openWords ? <Txt as="smallBold">{openWords}</Txt> : null}
            </View>
            <Spark values={row.leakTrendPsiPerMin} floor={LEAK_SPARK_FLOOR} />
          </View>
        )}
      </LinkTo>
    </View>
  );
}
