import { outcomeOf } from '@keen-bleed/core';
import { useMemo } from 'react';
import { FigureList } from '../record/FigureList';
import { FindingList } from '../record/FindingList';
import { MarkList } from '../record/MarkList';
import type { LiveRun } from '../store/useRun';
import { Txt } from '../ui/Txt';
import { useFigureContext } from './useFigureContext';

/** What came out so far, beside the run on a wide screen. A hold that still runs has no verdict yet. */
export function SoFar({ run }: { run: LiveRun }) {
  const { header, state } = run;
  const { unit } = header.made;
  const context = useFigureContext(header);
  const outcome = useMemo(() => outcomeOf(state, context), [context, state]);
  const figures = outcome.figures.filter((figure) => figure.stepId !== state.step?.id);
  return (
    <>
      <Txt as="heading" heading={2}>
        This run so far
      </Txt>
      {figures.length > 0 ? (
        <FigureList figures={figures} unit={unit.gauge.unit} full={!state.step} />
      ) : (
        <Txt tone="quiet">Figures stand here as soon as their marks are made.</Txt>
      )}
      <FindingList findings={outcome.findings} />
      <MarkList run={run} />
    </>
  );
}
