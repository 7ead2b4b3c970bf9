import type { LogRecord, RunFact, RunHeader } from '@keen-bleed/contract';
import {
  gaugeWord,
  ladderMarks,
  outcomeOf,
  rigTitle,
  sayOdometer,
  stateOfRun,
  toPsi,
  unitsOf,
  unitTitle,
  windowsOf,
  type NewFact,
  type RunState,
} from '@keen-bleed/core';
import { evidenceOfRun } from '@keen-bleed/core/diagnosis';
import { useMemo } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayDay, sayTime } from '../data/when';
import { Ladder } from '../ladder/Ladder';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { ChainBroken } from '../ui/ChainBroken';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { KeptInJobs } from '../job/KeptInJobs';
import { SuspectsBrief } from '../suspects/SuspectsBrief';
import { BeingMade } from './BeingMade';
import { ClockAsk } from './ClockAsk';
import { RecordMarks } from './RecordMarks';
import { RecordOutcome } from './RecordOutcome';

interface RecordScreenProps {
  header: RunHeader;
  /** In their order. */
  facts: readonly RunFact[];
  by: string;
  /** Other runs of the same units in the same stretch of time. */
  overlapping?: LogRecord['overlapping'];
  /** Whether what the server keeps is what was recorded. */
  chain?: LogRecord['chain'];
  /** It is being made on another device, and followed from here. */
  following?: boolean;
  /** Names of those who wrote in it, by lane. */
  writers?: Readonly<Record<string, string>>;
  /** Adds to the record what may still be added: a note, and how far a clock was off. */
  onAdd?: ((fact: NewFact<RunFact>) => Promise<string | null>) | null;
  mayAnswerClock?: boolean;
  /** Goes on with it on this device, where it is open and whoever looks may. */
  onTakeOver?: (() => Promise<string | null>) | null;
  /** By the server's clock, where it has told. */
  startedAtMs?: number;
}

/** What was written on another device after the run was taken over there, or closed. */
function sayAside({ setAside }: RunState): string {
  const n = setAside.length;
  return `${n === 1 ? 'One entry was' : `${n} entries were`} made on another device after the run had been taken over or closed. They are kept in the export and do not count.`;
}

/** A run as recorded: its verdict, its figures with their limits and sources, its ladder and its marks. */
export function RecordScreen({
  header,
  facts,
  by,
  overlapping = [],
  chain,
  following = false,
  writers = {},
  onAdd = null,
  mayAnswerClock = false,
  onTakeOver = null,
  startedAtMs,
}: RecordScreenProps) {
  const me = useMe();
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const { unit, towed, ruleSet } = header.made;
  const state = useMemo(() => stateOfRun(header.made, facts), [facts, header]);
  const { procedure } = state;
  const outcome = useMemo(
    () => outcomeOf(state, { unit, towed, ruleSet, sayIn }),
    [ruleSet, sayIn, state, towed, unit],
  );
  const unitsRun = useMemo(() => [unit, ...towed], [towed, unit]);
  const evidence = useMemo(
    () => evidenceOfRun({ outcome, gauge: state.gauge, atMs: header.startedAtMs }),
    [header.startedAtMs, outcome, state.gauge],
  );
  const beganMs = startedAtMs ?? header.startedAtMs - (header.offsetMs ?? 0);
  const conditions = [
    `${sayDay(beganMs)}, ${sayTime(beganMs)}`,
    by,
    `${ruleSet.title}, revision ${ruleSet.revision}`,
    state.gauge
      ? `${gaugeWord(state.gauge, ruleSet.school)}${state.gauge === 'master' || state.gauge === 'simulated' ? '' : ' gauge'}`
      : null,
    state.about.odometer ? sayOdometer(state.about.odometer) : null,
    state.about.place ?? null,
  ].filter((each) => each !== null);

  return (
    <Screen
      title={rigTitle(header.made)}
      aside={wide ? undefined : <OutboxSign />}
      lead={
        <View style={{ gap: space.near }}>
          <Txt tone="quiet">{conditions.join(' · ')}</Txt>
          <ChainBroken chain={chain} />
          {following ? null : (
            <>
              <VerdictSign verdict={outcome.verdict} as="heading" />
              <Txt as="bodyBold">{outcome.headline}</Txt>
              {state.closed ? (
                <KeptInJobs header={header} outcome={outcome} mayKeep={me.role !== 'viewer'} />
              ) : null}
              {outcome.verdict === 'pass' ? null : (
                <SuspectsBrief units={unitsRun} evidence={evidence} />
              )}
            </>
          )}
          <ClockAsk facts={facts} onAnswer={mayAnswerClock ? onAdd : null} />
          {following ? (
            <BeingMade state={state} by={by} writers={writers} onTakeOver={onTakeOver} />
          ) : null}
          {state.setAside.length > 0 ? (
            <Txt as="small" tone="quiet">
              {sayAside(state)}
            </Txt>
          ) : null}
          {overlapping.map((other) => (
            <Notice
              key={other.logId}
              manner="trouble"
              title={`Another run of the same unit overlaps this one: ${other.by}, from ${sayTime(other.startedAtMs)}`}
              text="Both are kept. Two people may have used the same air: look at both before you judge."
            />
          ))}
        </View>
      }
    >
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          gap: space.wide,
          marginTop: space.step,
        }}
      >
        <RecordOutcome outcome={outcome} onAdd={onAdd} />
        <View style={{ gap: space.gap, width: wide ? 400 : '100%' }}>
          <Txt as="heading" heading={2}>
            The ladder
          </Txt>
          <Ladder
            gauge={unit.gauge}
            rangePsi={[0, toPsi(unit.gauge.top, unit.gauge.unit)]}
            windows={windowsOf(procedure, header.made, ruleSet)}
            flags={ladderMarks(state).map((mark) => ({
              id: mark.factId,
              psi: mark.readingPsi,
            }))}
            needlePsi={null}
            height={460}
            width={210}
          />
          <RecordMarks state={state} facts={facts} gauge={unit.gauge} />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
            <LinkOut title="Report as PDF" href={`/api/v1/runs/${header.id}/report.pdf`} />
            <LinkOut title="Export as JSON" href={`/api/v1/runs/${header.id}/export.json`} />
            <LinkOut title="Export as CSV" href={`/api/v1/runs/${header.id}/export.csv`} />
          </View>
          {unitsOf(header.made).map((each) => (
            <LinkTo key={each.id} to={`/unit/${each.id}`}>
              <Txt as="bodyBold" tone="accent">{`Rig sheet of ${unitTitle(each)}`}</Txt>
            </LinkTo>
          ))}
        </View>
      </View>
    </Screen>
  );
}
