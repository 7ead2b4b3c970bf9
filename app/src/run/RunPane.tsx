import { doubtsOf, figuresOf, outcomeOf } from '@keen-bleed/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import { FigureList } from '../record/FigureList';
import { FindingList } from '../record/FindingList';
import type { LiveRun } from '../store/useRun';
import { space } from '../theme/space';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import type { RunDesk } from './desk/useRunDesk';
import { StepPane, type HowRead } from './step/StepPane';
import { useFigureContext } from './useFigureContext';

interface RunPaneProps {
  run: LiveRun;
  desk: RunDesk;
  wide: boolean;
  onSkip: () => void;
  reading: HowRead;
}

/** The step that is waited on, or, when all are done, what the run comes to. */
export function RunPane({ run, desk, wide, onSkip, reading }: RunPaneProps) {
  const { header, state } = run;
  const { unit, ruleSet } = header.made;
  const { step } = state;
  const context = useFigureContext(header);
  const figures = useMemo(() => figuresOf(state, context), [context, state]);
  const doubts = useMemo(() => doubtsOf(state, unit.gauge.unit), [state, unit.gauge.unit]);
  if (step) {
    return (
      <StepPane
        state={state}
        gauge={unit.gauge}
        school={ruleSet.school}
        desk={desk}
        figures={figures}
        doubts={doubts}
        narrow={!wide && (step.act.kind === 'marks' || step.act.kind === 'hold')}
        onSkip={onSkip}
        reading={reading}
      />
    );
  }
  const outcome = outcomeOf(state, context);
  return (
    <View style={{ gap: space.step }}>
      <Txt as="stepTitle" heading={2}>
        All steps done
      </Txt>
      <VerdictSign verdict={outcome.verdict} as="heading" />
      <Txt>{outcome.headline}</Txt>
      {wide ? null : (
        <>
          <FigureList figures={outcome.figures} unit={unit.gauge.unit} full />
          <FindingList findings={outcome.findings} />
        </>
      )}
    </View>
  );
}
