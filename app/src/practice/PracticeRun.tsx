import { outcomeOf } from '@keen-bleed/core';
import { useMemo, type ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import type { LinkedGauge } from '../linked/linkedGauge';
import { FigureList } from '../record/FigureList';
import { FindingList } from '../record/FindingList';
import { LiveRunScreen } from '../run/LiveRunScreen';
import { RunClock } from '../run/desk/runClock';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import type { LiveRun } from '../store/useRun';
import type { Practice } from './usePractice';

interface PracticeRunProps {
  practice: Practice;
  gauge: LinkedGauge;
  /** What is driven while the run is made, over it. */
  strip: ReactNode;
  /** Where the run is left to, in one word. */
  leaveTitle: string;
  onLeave: () => void;
}

/** A run by the book on a rig that is not there: walked like any other, with the same figures; kept nowhere. */
export function PracticeRun({ practice, gauge, strip, leaveTitle, onLeave }: PracticeRunProps) {
  const { run, clock, reading } = practice;
  if (run.state.closed) return <PracticeEnd run={run} title={leaveTitle} onLeave={onLeave} />;
  return (
    <RunClock.Provider value={clock}>
      <View style={{ flex: 1 }}>
        {strip}
        <View style={{ flex: 1, minHeight: 0 }}>
          <LiveRunScreen run={run} practice={{ gauge, reading, leaveTitle, onLeave }} />
        </View>
      </View>
    </RunClock.Provider>
  );
}

function PracticeEnd({
  run,
  title,
  onLeave,
}: {
  run: LiveRun;
  title: string;
  onLeave: () => void;
}) {
  const { header, state } = run;
  const { unit, towed, ruleSet } = header.made;
  const outcome = useMemo(
    () => outcomeOf(state, { unit, towed, ruleSet, sayIn: unit.gauge.unit }),
    [ruleSet, state, towed, unit],
  );
  return (
    <ScrollView role="main" contentContainerStyle={{ padding: space.gap, gap: space.gap }}>
      <Txt as="heading" heading={1}>
        The run by the book
      </Txt>
      <VerdictSign verdict={outcome.verdict} as="heading" />
      <Txt>{outcome.headline}</Txt>
      <Txt as="small" tone="quiet">
        A run for practice: it is in no record.
      </Txt>
      <FigureList figures={outcome.figures} unit={unit.gauge.unit} full />
      <FindingList findings={outcome.findings} />
      <Button
        title={title}
        manner="main"
        onPress={onLeave}
        style={{ alignSelf: 'flex-start', minWidth: 160 }}
      />
    </ScrollView>
  );
}
