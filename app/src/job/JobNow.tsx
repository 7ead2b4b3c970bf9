import type { Repair } from '@keen-bleed/contract';
import {
  partTitle,
  readable,
  repairWords,
  sayPartData,
  sayPartNumber,
  wantsOf,
  type Owed,
  type RigUnderTest,
} from '@keen-bleed/core';
import { checksOf, checksOfRetest, type Check } from '@keen-bleed/core/checks';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import useSWRImmutable from 'swr/immutable';
import { useMe } from '../account/session';
import type { Likely } from '../air/drawing';
import { inDrawing, rigKey } from '../air/useDrawn';
import { useFound, useJobBlocks, useRuleSets } from '../data/useRecords';
import { sayDay } from '../data/when';
import { useWalkRound } from '../parts/useWalkRound';
import { CheckSheet } from '../plan/CheckSheet';
import { sayAnswer } from '../plan/sayAnswer';
import { usePrefs } from '../prefs/prefs';
import { WriteSheet } from '../run/step/WriteSheet';
import { retestRun } from '../store/retestRun';
import { startRun } from '../store/startRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { checksMade, retestByChecks } from './checkRetest';
import type { Tell } from './JobScreen';
import { Measures, MeasureSheet } from './Measures';
import { MendSheet } from './MendSheet';
import { OwedList } from './OwedList';
import { ProveSheet, type Conclusion } from './ProveSheet';
import { useExpected } from './useExpected';
import type { LiveJob } from './useJob';

type SheetNow =
  | { sheet: 'prove'; begins: Conclusion | null; replaces: boolean }
  | { sheet: 'mend'; does: 'choose' | 'fit' }
  | { sheet: 'wait' | 'measure' | 'reopen' }
  | { sheet: 'accept'; owed: Owed }
  | { sheet: 'check'; owed: Owed; check: Check };

interface JobNowProps {
  job: LiveJob;
  /** The units as they are now. */
  rig: RigUnderTest;
  /** Null for whoever only reads. */
  tell: Tell | null;
  nowMs: number;
}

/** Likely parts that are offered at once. */
const OFFERED = 6;

/** What a job asks for where it stands, and the ways on. */
export function JobNow({ job, rig, tell, nowMs }: JobNowProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const { header, state } = job;
  const { made } = header;
  const { to } = useLocalSearchParams<{ to?: string }>();
  const [sheet, setSheet] = useState<SheetNow | null>(() => asksFor(to, job, tell !== null));
  const [trouble, setTrouble] = useState<string | null>(null);
  const { proven, chosen, station } = state;
  const at = proven?.at ?? chosen?.at ?? state.fitted.at(-1)?.at ?? null;
  const unit = made.units.find(({ id }) => id === at?.unitId) ?? null;
  const found = useFound(made.foundOn[0] ?? null);
  const checksDone = (found.data ?? []).flatMap(({ partId, said, evidence }) =>
    evidence?.kind === 'check' ? [{ partId, said }] : [],
  );
  const keep = (facts: readonly Parameters<Tell>[0][], photos: readonly Blob[] = []) => {
    setSheet(null);
    void (async () => {
      for (const fact of facts) if (!(await tell?.(fact, photos))) return;
    })();
  };
  const likely = useLikely(job, rig, station === 'found');
  const title = at && unit ? (partTitle(unit, at.partId) ?? at.partId) : '';

  return (
    <View style={{ gap: space.step }}>
      <Measures
        measures={state.measures}
        nowMs={nowMs}
        onUndo={tell ? (measureId) => keep([{ kind: 'undone', measureId }]) : null}
      />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {station === 'found' ? (
        <FoundNow
          likely={likely}
          suspectsAt={made.foundOn[0] ?? rig.unit.id}
          reopened={state.reopened?.because ?? null}
          onProve={tell ? (begins) => setSheet({ sheet: 'prove', begins, replaces: false }) : null}
          begin={(each) => beginAt(job, each, checksDone)}
        />
      ) : null}
      {station === 'proven' || station === 'part' ? (
        <View style={{ gap: space.near }}>
          <Txt as="heading" heading={2}>
            {station === 'proven'
              ? `${title}: which part will it be?`
              : `${title} to be ${repairWords[chosen?.repair ?? 'replaced']}`}
          </Txt>
          {unit && at ? (
            <Txt>
              {`It must match: ${wantsOf(unit, at.partId)
                .map(({ field, title: want, value, tolerance }) =>
                  value === null
                    ? `${want.toLowerCase()} not known yet`
                    : `${want.toLowerCase()} ${typeof value === 'number' ? sayPartNumber(field, value, sayIn) : value}${typeof value === 'number' && tolerance !== null ? ` ± ${sayPartNumber(field, tolerance, sayIn)}` : ''}`,
                )
                .join(', ')}.`}
            </Txt>
          ) : null}
          {chosen?.offered ? <Txt>{`Offered: ${sayPartData(chosen.offered, sayIn)}.`}</Txt> : null}
          {state.refused.map((fact) => (
            <Txt key={fact.id} as="small">{`Refused: ${fact.problems.join(' ')}`}</Txt>
          ))}
          {state.waiting ? (
            <Txt as="bodyBold">
              {`Waits for ${state.waiting.text}${state.waiting.until ? `, expected ${sayDay(Date.parse(`${state.waiting.until}T12:00:00`))}` : ''}`}
            </Txt>
          ) : null}
          {tell ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
              <Button
                title={station === 'proven' ? 'Choose the part' : 'It is done'}
                manner="main"
                size="glove"
                onPress={() =>
                  setSheet({ sheet: 'mend', does: station === 'proven' ? 'choose' : 'fit' })
                }
              />
              {station === 'proven' ? (
                <Button
                  title="It is done already"
                  size="glove"
                  onPress={() => setSheet({ sheet: 'mend', does: 'fit' })}
                />
              ) : (
                <>
                  <Button
                    title="Offer another part"
                    size="glove"
                    onPress={() => setSheet({ sheet: 'mend', does: 'choose' })}
                  />
                  <Button
                    title="Waits for parts"
                    size="glove"
                    onPress={() => setSheet({ sheet: 'wait' })}
                  />
                </>
              )}
              {proven ? (
                <Button
                  title="It is something else"
                  size="glove"
                  onPress={() => setSheet({ sheet: 'prove', begins: null, replaces: true })}
                />
              ) : null}
            </View>
          ) : null}
        </View>
      ) : null}
      {state.owed.length > 0 ? (
        <RetestNow job={job} rig={rig} tell={tell} onSheet={setSheet} onTrouble={setTrouble} />
      ) : null}
      {station === 'release' ? <ReleaseNow job={job} tell={tell} /> : null}
      {tell ? (
        <Button
          title="Add a temporary measure"
          manner="quiet"
          onPress={() => setSheet({ sheet: 'measure' })}
          style={{ alignSelf: 'flex-start', marginLeft: -space.near }}
        />
      ) : null}
      {sheet?.sheet === 'prove' ? (
        <ProveSheet
          units={made.units}
          begins={sheet.begins}
          made={checksDone}
          replaces={sheet.replaces ? proven : null}
          onDone={(facts) => keep(facts)}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet?.sheet === 'mend' && unit && at ? (
        <MendSheet
          unit={unit}
          partId={at.partId}
          does={sheet.does}
          begins={{
            repair: chosen?.repair ?? (null as Repair | null),
            offered: chosen?.offered ?? {},
          }}
          mayOverride={me.role === 'lead'}
          onDone={(fact, photos) => keep([fact], photos)}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet?.sheet === 'wait' ? (
        <WriteSheet
          title="Waits for parts"
          label="What is on order, and from where"
          doTitle="Keep"
          most={200}
          onDone={(text) => keep([{ kind: 'waiting', text: readable(text) }])}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet?.sheet === 'measure' ? (
        <MeasureSheet
          units={made.units}
          onDone={(fact) => keep([fact])}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet?.sheet === 'reopen' ? (
        <WriteSheet
          title="It did not do what it should"
          label="What the retest says"
          ready={state.owed.flatMap(({ done }) =>
            done?.verdict === 'fail' ? [done.said.slice(0, 200)] : [],
          )}
          doTitle="Open it again"
          most={300}
          onDone={(because) => {
            keep([{ kind: 'reopened', because: readable(because) }]);
            router.push(`/unit/${at?.unitId ?? rig.unit.id}/suspects`);
          }}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet?.sheet === 'accept' && sheet.owed.done ? (
        <AcceptSheet owed={sheet.owed} onKeep={keep} onLeave={() => setSheet(null)} />
      ) : null}
      {sheet?.sheet === 'check' ? (
        <CheckOwed
          key={sheet.check.id}
          job={job}
          rig={rig}
          owed={sheet.owed}
          check={sheet.check}
          tell={tell}
          onDone={(next) =>
            setSheet(next ? { sheet: 'check', owed: sheet.owed, check: next } : null)
          }
        />
      ) : null}
    </View>
  );
}

/** What a marker that was let go at a station asks for; nothing where the job is not so far. */
function asksFor(to: string | undefined, { state }: LiveJob, mayWrite: boolean): SheetNow | null {
  if (!mayWrite || to === undefined) return null;
  const { station, proven } = state;
  if (to === 'proven' && station === 'found')
    return { sheet: 'prove', begins: null, replaces: false };
  if ((to === 'found' || to === 'proven') && proven)
    return { sheet: 'prove', begins: null, replaces: true };
  if (to === 'part' && station === 'proven') return { sheet: 'mend', does: 'choose' };
  if (to === 'fitted' && (station === 'part' || station === 'proven'))
    return { sheet: 'mend', does: 'fit' };
  return null;
}

interface AcceptSheetProps {
  owed: Owed;
  onKeep: (facts: readonly Parameters<Tell>[0][]) => void;
  onLeave: () => void;
}

function AcceptSheet({ owed, onKeep, onLeave }: AcceptSheetProps) {
  const { done } = owed;
  if (!done) return null;
  const { owedId, logId, factId, verdict, said, readings } = done;
  return (
    <WriteSheet
      title={`Take “${owed.title}” as passed`}
      label="Why it is taken as passed"
      doTitle="Take as passed"
      most={300}
      onDone={(accepted) =>
        onKeep([
          {
            kind: 'retested',
            owedId,
            logId,
            ...(factId === undefined ? {} : { factId }),
            verdict,
            said,
            readings,
            accepted: readable(accepted),
          },
        ])
      }
      onLeave={onLeave}
    />
  );
}

/** Where a conclusion begins for a likely fault: what was checked at its part, or what the run showed. */
function beginAt(
  { header }: LiveJob,
  { faultId, unit, partId, title }: Likely,
  checks: readonly { partId: string; said: string }[],
): Conclusion {
  const { made } = header;
  const by = checks.find((each) => each.partId === partId)?.said;
  return {
    unitId: made.units[unit]?.id ?? made.units[0]!.id,
    partId,
    faultId,
    text: title,
    by: by ?? made.found,
  };
}

/** The parts a job's failures or its suspects point at. */
function useLikely(
  { header }: LiveJob,
  rig: RigUnderTest,
  isWanted: boolean,
): readonly Likely[] | null {
  const { bornOf, failures } = header.made;
  const keys = failures.map(({ key }) => key);
  const { data } = useSWRImmutable<Likely[], Error>(
    isWanted ? `likely ${header.id} ${rigKey(rig)}` : null,
    () =>
      inDrawing((drawing) =>
        drawing.likely(rig, keys, bornOf.kind === 'suspect' ? bornOf.faultIds : []),
      ),
  );
  return data ?? null;
}

interface FoundNowProps {
  likely: readonly Likely[] | null;
  suspectsAt: string;
  reopened: string | null;
  onProve: ((begins: Conclusion | null) => void) | null;
  begin: (likely: Likely) => Conclusion;
}

function FoundNow({ likely, suspectsAt, reopened, onProve, begin }: FoundNowProps) {
  const [all, setAll] = useState(false);
  const shown = (likely ?? []).slice(0, all ? undefined : OFFERED);
  const rest = (likely?.length ?? 0) - shown.length;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        What is it?
      </Txt>
      {reopened ? <Txt as="bodyBold">{`Reopened: ${reopened}`}</Txt> : null}
      {likely && likely.length > 0 ? (
        <>
          <Txt tone="quiet">
            The trade looks at these first. Tap the one that a check has proven.
          </Txt>
          <View role="list" aria-label="Likely parts">
            {shown.map((each) => (
              <View key={each.faultId} role="listitem">
                <Rule />
                <Button
                  title={`${each.part.charAt(0).toUpperCase()}${each.part.slice(1)}: ${each.title}`}
                  manner="quiet"
                  size="glove"
                  disabled={!onProve}
                  onPress={() => onProve?.(begin(each))}
                  style={{ alignSelf: 'flex-start' }}
                />
              </View>
            ))}
            <Rule />
          </View>
        </>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        {rest > 0 ? (
          <Button title={`${rest} more`} manner="quiet" size="glove" onPress={() => setAll(true)} />
        ) : null}
        {onProve ? (
          <Button title="Another part" size="glove" onPress={() => onProve(null)} />
        ) : null}
        <Button
          title="Weigh the suspects"
          size="glove"
          onPress={() => router.push(`/unit/${suspectsAt}/suspects`)}
        />
      </View>
    </View>
  );
}

interface RetestNowProps {
  job: LiveJob;
  rig: RigUnderTest;
  tell: Tell | null;
  onSheet: (sheet: SheetNow) => void;
  onTrouble: (text: string | null) => void;
}

function RetestNow({ job, rig, tell, onSheet, onTrouble }: RetestNowProps) {
  const me = useMe();
  const { header, state } = job;
  const rules = useRuleSets();
  const left = state.owed.filter(({ passed }) => !passed);
  const checks = useMemo(() => checksOf(rig, []), [rig]);
  const expected = useExpected(
    rig,
    state.owed.flatMap((each) => checksOfRetest(checks, each).map(({ id }) => id)),
  );
  const run = rules.data ? retestRun(rig, left, [header.id], rules.data) : null;
  const failed = state.owed.some(({ done }) => done?.verdict === 'fail');
  const start = async () => {
    if (!run) return;
    try {
      const id = await startRun(me, { ...run.on, rigId: header.subject.rigId });
      router.push(`/run/${id}`);
    } catch {
      onTrouble('This device cannot keep a run. Free some space on it, then try again.');
    }
  };
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        {left.length === 0 ? 'Retested' : 'Retest owed'}
      </Txt>
      {tell && run ? (
        <Button
          title={`Retest: ${run.minutes} minutes`}
          manner="main"
          size="glove"
          onPress={() => void start()}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {run && run.missing.length > 0 ? (
        <Notice
          manner="trouble"
          title={`No rule set of yours asks for: ${run.missing.join(', ')}`}
          text="A lead can add the step to a rule set under Shop."
        />
      ) : null}
      <OwedList
        owed={state.owed}
        expected={expected}
        onCheck={
          tell
            ? (owed) => {
                const [first] = checksOfRetest(checks, owed);
                if (first) onSheet({ sheet: 'check', owed, check: first });
                else onTrouble('The catalogue has no such check on this rig: a lead can override.');
              }
            : null
        }
        onAccept={me.role === 'lead' ? (owed) => onSheet({ sheet: 'accept', owed }) : null}
      />
      {failed && tell ? (
        <Button
          title="It did not do what it should: open it again"
          size="glove"
          onPress={() => onSheet({ sheet: 'reopen' })}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}

interface CheckOwedProps {
  job: LiveJob;
  rig: RigUnderTest;
  owed: Owed;
  check: Check;
  tell: Tell | null;
  /** With the next check that the retest asks for, or null after the last. */
  onDone: (next: Check | null) => void;
}

/** One check of a retest: kept in a visit, and judged with the others once all are made. */
function CheckOwed({ job, rig, owed, check, tell, onDone }: CheckOwedProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const { header, state } = job;
  const units = useMemo(() => [rig.unit, ...rig.towed], [rig]);
  const walk = useWalkRound(units, header.subject.rigId, 'Retest');
  const asked = useMemo(() => checksOfRetest(checksOf(rig, []), owed), [owed, rig]);
  const expected = useExpected(
    rig,
    asked.map(({ id }) => id),
  );
  const sinceMs = Math.max(0, ...state.fitted.map(({ atMs }) => atMs));
  return (
    <CheckSheet
      check={check}
      onDone={(answer, note, photos) => {
        void (async () => {
          const kept = await walk.say(
            {
              kind: 'check',
              at: { unitId: units[check.unit]?.id ?? rig.unit.id, partId: check.part },
              checkId: check.id,
              title: check.title,
              answer: answer as never,
              said: sayAnswer(answer, check.answer, sayIn),
              ...(note === null ? {} : { note }),
            },
            photos,
          );
          if (!kept) return;
          const made = await checksMade(me, rig.unit.id, header.subject.rigId);
          const sound = expected ?? (await expectedNow(rig, asked));
          const fact = made && retestByChecks(owed, asked, made, sinceMs, sound.answers);
          if (fact) await tell?.(fact);
          onDone(asked[asked.findIndex(({ id }) => id === check.id) + 1] ?? null);
        })();
      }}
      onLeave={() => onDone(null)}
    />
  );
}

const expectedNow = (rig: RigUnderTest, asked: readonly Check[]) =>
  inDrawing((drawing) =>
    drawing.expect(
      rig,
      asked.map(({ id }) => id),
    ),
  );

/** Release: the server looks at everything again before it answers. */
function ReleaseNow({ job, tell }: { job: LiveJob; tell: Tell | null }) {
  const me = useMe();
  const { header, state } = job;
  const blocks = useJobBlocks(header.id);
  const against = blocks.data?.blocks ?? [];
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Release
      </Txt>
      <Txt tone="quiet">
        Local law and a licensed inspector decide whether it may go on the road; this record
        advises.
      </Txt>
      {state.asked ? (
        <Notice
          title="Release asked for: the vehicle is held until the server has answered"
          text={
            against.length > 0
              ? `It stands against: ${against.join(' ')}`
              : 'It is sent as soon as there is a network.'
          }
        />
      ) : against.length > 0 ? (
        <Notice manner="trouble" title="It cannot be released yet" text={against.join(' ')} />
      ) : null}
      {tell && me.role === 'lead' ? (
        <Button
          title={state.asked ? 'Ask again' : 'Release the vehicle'}
          manner="main"
          size="glove"
          onPress={() => {
            void tell({ kind: 'ask-release' }).then(() => blocks.mutate());
          }}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : (
        <Txt as="bodyBold">Passed. A lead releases it.</Txt>
      )}
    </View>
  );
}
