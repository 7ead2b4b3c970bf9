import type { LogRecord, RunFact, RunHeader } from '@keen-bleed/contract';
import {
  gaugeWord,
  markRows,
  outcomeOf,
  rigTitle,
  stateOfRun,
  sayPressure,
  toPsi,
  unitsOf,
  unitTitle,
  windowsOf,
  type NewFact,
} from '@keen-bleed/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import { sayDay, sayTime } from '../data/when';
import { Ladder } from '../ladder/Ladder';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { ClockAsk } from './ClockAsk';
import { FigureList } from './FigureList';
import { FindingList } from './FindingList';

interface RecordScreenProps {
  header: RunHeader;
  /** In their order. */
  facts: readonly RunFact[];
  by: string;
  /** Other runs of the same units in the same stretch of time. */
  overlapping?: LogRecord['overlapping'];
  /** It is being made on another device, and followed from here. */
  following?: boolean;
  /** Adds to the record what may still be added: how far a clock was off. */
  onAnswer?: ((fact: NewFact<RunFact>) => Promise<string | null>) | null;
  /** By the server's clock, where it has told. */
  startedAtMs?: number;
}

/** A run as recorded: its verdict, its figures with their limits and sources, its ladder and its marks. */
export function RecordScreen({
  header,
  facts,
  by,
  overlapping = [],
  following = false,
  onAnswer = null,
  startedAtMs,
}: RecordScreenProps) {
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const { unit, towed, ruleSet } = header.made;
  const state = useMemo(() => stateOfRun(header.made, facts), [facts, header]);
  const { procedure } = state;
  const outcome = useMemo(
    () => outcomeOf(state, { unit, towed, ruleSet, sayIn }),
    [ruleSet, sayIn, state, towed, unit],
  );
  const titleOf = (stepId: string) =>
    procedure.steps.find((step) => step.id === stepId)?.title ?? stepId;
  const rows = markRows(state, facts);
  const beganMs = startedAtMs ?? header.startedAtMs - (header.offsetMs ?? 0);
  const conditions = [
    `${sayDay(beganMs)}, ${sayTime(beganMs)}`,
    by,
    `${ruleSet.title}, revision ${ruleSet.revision}`,
    state.gauge
      ? `${gaugeWord(state.gauge, ruleSet.school)}${state.gauge === 'master' ? '' : ' gauge'}`
      : null,
  ].filter((each) => each !== null);

  const figures = (
    <View style={{ gap: space.gap, flex: wide ? 1 : undefined }}>
      <FigureList figures={outcome.figures} unit={sayIn} full />
      <FindingList findings={outcome.findings} />
      {outcome.skipped.length > 0 ? (
        <View style={{ gap: space.hair }}>
          <Txt as="heading" heading={2}>
            Left out
          </Txt>
          {outcome.skipped.map((each) => (
            <Txt key={each.stepId}>{`${each.title}: ${each.reason}`}</Txt>
          ))}
        </View>
      ) : null}
      {outcome.notes.length > 0 ? (
        <View style={{ gap: space.hair }}>
          <Txt as="heading" heading={2}>
            Notes
          </Txt>
          {outcome.notes.map((note, index) => (
            <Txt key={index}>{`${note.title}: ${note.text}`}</Txt>
          ))}
        </View>
      ) : null}
      <Txt as="small" tone="quiet">
        This record advises; it does not replace the inspection your law asks for.
      </Txt>
    </View>
  );

  return (
    <Screen
      title={rigTitle(header.made)}
      aside={wide ? undefined : <OutboxSign />}
      lead={
        <View style={{ gap: space.near }}>
          <Txt tone="quiet">{conditions.join(' · ')}</Txt>
          <VerdictSign verdict={outcome.verdict} as="heading" />
          <Txt as="bodyBold">{outcome.headline}</Txt>
          <ClockAsk facts={facts} onAnswer={onAnswer} />
          {following ? (
            <Notice
              title={
                state.step
                  ? `${by} is at “${state.step.title}”, step ${state.stepIndex + 1} of ${procedure.steps.length}`
                  : `${by} has done all steps and has not closed the run yet`
              }
              text="It follows by itself as marks come in."
            />
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
        {figures}
        <View style={{ gap: space.gap, width: wide ? 400 : '100%' }}>
          <Txt as="heading" heading={2}>
            The ladder
          </Txt>
          <Ladder
            gauge={unit.gauge}
            rangePsi={[0, toPsi(unit.gauge.top, unit.gauge.unit)]}
            windows={windowsOf(procedure, header.made, ruleSet)}
            flags={state.marks.map((mark) => ({
              id: mark.factId,
              psi: mark.readingPsi,
            }))}
            needlePsi={null}
            height={460}
            width={210}
          />
          <View>
            <Txt as="heading" heading={2}>
              Marks
            </Txt>
            <View role="list" aria-label="Marks">
              {rows.map((row) => (
                <View key={row.seq} role="listitem">
                  <Rule />
                  <View
                    style={{
                      flexDirection: 'row',
                      alignItems: 'center',
                      paddingVertical: space.near,
                      gap: space.near,
                    }}
                  >
                    <View style={{ flex: 1 }}>
                      <Txt>{titleOf(row.step)}</Txt>
                      <Txt as="small" tone="quiet">
                        {[
                          sayTime(Date.parse(row.timeUtc)),
                          row.method === 'crossing' ? 'as it passed' : null,
                          row.state === 'stands' ? null : row.state,
                        ]
                          .filter((each) => each !== null)
                          .join(', ')}
                      </Txt>
                    </View>
                    <Txt
                      as="numberBold"
                      style={row.state === 'stands' ? null : { textDecorationLine: 'line-through' }}
                      tone={row.state === 'stands' ? 'ink' : 'quiet'}
                    >
                      {sayPressure(row.readingPsi, unit.gauge.unit)}
                    </Txt>
                  </View>
                </View>
              ))}
              <Rule />
            </View>
          </View>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
            <LinkOut title="Report as PDF" href={`/api/runs/${header.id}/report.pdf`} />
            <LinkOut title="Take out as JSON" href={`/api/runs/${header.id}/export.json`} />
            <LinkOut title="Take out as CSV" href={`/api/runs/${header.id}/export.csv`} />
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
