import type { Repair } from '@keen-bleed/contract';
import {
  partTitle,
  readable,
  repairWords,
  sayPartData,
  sayPartNumber,
  wantsOf,
  type RigUnderTest,
} from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useFound } from '../data/useRecords';
import { sayDay } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { WriteSheet } from '../run/step/WriteSheet';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { beginAt } from './beginAt';
import { FoundNow, useLikely } from './FoundNow';
import type { Tell } from './JobScreen';
import { Measures, MeasureSheet } from './Measures';
import { MendSheet } from './MendSheet';
import { ProveSheet } from './ProveSheet';
import { ReleaseNow } from './ReleaseNow';
import { AcceptSheet, CheckOwed, RetestNow } from './RetestNow';
import { asksFor, type SheetNow } from './sheetNow';
import type { LiveJob } from './useJob';

interface JobNowProps {
  job: LiveJob;
  /** The units as they are now. */
  rig: RigUnderTest;
  /** Null for whoever only reads. */
  tell: Tell | null;
  nowMs: number;
}

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
