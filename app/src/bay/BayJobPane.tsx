import { partTitle, unitsOf, type Owed } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { BeforeAfter } from '../job/BeforeAfter';
import { Rail, StationHeads } from '../job/Rail';
import { WorkCautions } from '../job/WorkCautions';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { VerdictShape } from '../ui/VerdictSign';
import type { BaySetup } from './bayProtocol';
import type { BayJob } from './useBayJob';

interface BayJobPaneProps {
  job: BayJob;
  setup: BaySetup;
}

/** A practice job: fit the part on the rig in the Bay, test again what it owes, and see whether that proves it. */
export function BayJobPane({ job, setup }: BayJobPaneProps) {
  const [box, onBox] = useBoxSize();
  const [busy, setBusy] = useState(false);
  const { state } = job;
  if (!state) return null;
  const { proven, station, owed } = state;
  const unit = unitsOf(setup.rig).find(({ id }) => id === proven?.at.unitId);
  const title = (unit && proven && partTitle(unit, proven.at.partId)) ?? state.header.made.found;
  const practised = owed.filter((each) => job.checksFor(each).length > 0);
  const elsewhere = owed.filter((each) => job.checksFor(each).length === 0);
  const failed = practised.find(({ done }) => done?.verdict === 'fail');
  const isProven = practised.length > 0 && practised.every(({ passed }) => passed);
  const isFitted = owed.length > 0 && station !== 'proven' && station !== 'found';
  const during = (does: () => Promise<void>) => () => {
    setBusy(true);
    void does().finally(() => setBusy(false));
  };
  return (
    <View style={{ gap: space.near }} onLayout={onBox}>
      <Txt as="heading" heading={2}>{`Job: ${title}`}</Txt>
      {box.width > 0 ? (
        <View role="img" aria-label={`The job stands at ${isProven ? 'release' : station}`}>
          <StationHeads width={Math.min(560, box.width)} at={isProven ? 'release' : station} />
          <Rail
            station={isProven ? 'release' : station}
            tone={isProven ? 'passed' : 'holds'}
            width={Math.min(560, box.width)}
          />
        </View>
      ) : null}
      {station === 'proven' ? (
        <>
          {unit && proven ? (
            <WorkCautions unit={unit} partId={proven.at.partId} repair="replaced" />
          ) : null}
          <Button
            title="Fit a new one"
            manner="main"
            size="glove"
            busy={busy}
            onPress={during(job.fit)}
            style={{ alignSelf: 'flex-start' }}
          />
        </>
      ) : null}
      {isFitted ? (
        <View role="list" aria-label="Retests owed">
          {practised.map((each) => (
            <RetestRow
              key={each.id}
              owed={each}
              busy={busy}
              onRetest={during(() => job.retest(each))}
            />
          ))}
          <Rule />
        </View>
      ) : null}
      {elsewhere.length > 0 && isFitted ? (
        <Txt as="small" tone="quiet">
          {`On a real rig as well: ${elsewhere.map((each) => each.title.toLowerCase()).join(', ')}.`}
        </Txt>
      ) : null}
      {failed ? (
        <Button
          title="It did not do it: weigh the suspects again"
          size="glove"
          onPress={() => job.reopen(failed.done?.said ?? 'The retest failed')}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {isProven && !state.asked ? (
        <Button
          title="Release it, as a lead would"
          manner="main"
          size="glove"
          onPress={job.release}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {isProven && state.asked ? (
        <Txt as="bodyBold" tone="pass" live="polite">
          Released, for practice. End it below to see what it was, and the shortest way there.
        </Txt>
      ) : null}
      <BeforeAfter readings={owed.flatMap(({ done }) => done?.readings ?? [])} />
    </View>
  );
}

interface RetestRowProps {
  owed: Owed;
  busy: boolean;
  onRetest: () => void;
}

function RetestRow({ owed, busy, onRetest }: RetestRowProps) {
  const { done, passed, title, minutes } = owed;
  return (
    <View role="listitem">
      <Rule />
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          gap: space.step,
          paddingVertical: space.near,
        }}
      >
        <VerdictShape verdict={passed ? 'pass' : (done?.verdict ?? 'incomplete')} />
        <View style={{ flex: 1 }}>
          <Txt as="bodyBold">{title}</Txt>
          <Txt as="small" tone="quiet">
            {done ? done.said : `${minutes} min`}
          </Txt>
        </View>
        {passed ? null : (
          <Button title="Retest" label={`Retest: ${title}`} busy={busy} onPress={onRetest} />
        )}
      </View>
    </View>
  );
}
