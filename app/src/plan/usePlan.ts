import type { RigUnderTest } from '@keen-bleed/core';
import type { Explained } from '@keen-bleed/core/checks';
import type { Facing, Level } from '@keen-bleed/core/drawing';
import useSWRImmutable from 'swr/immutable';
import type { BoundPlan, DrawingOptions } from '../air/drawing';
import { inDrawing, rigKey } from '../air/useDrawn';

interface Planned {
  bound: BoundPlan | undefined;
  failed: boolean;
  again: () => void;
}

/** A rig drawn from above, made in the drawing's thread and kept for as long as the rig is the same. */
export function usePlan(
  rig: RigUnderTest | null,
  facing: Facing,
  level: Level,
  options: DrawingOptions = {},
): Planned {
  const key =
    rig && `plan ${facing} ${JSON.stringify(level)} ${JSON.stringify(options)} ${rigKey(rig)}`;
  const { data, error, mutate } = useSWRImmutable<BoundPlan, Error>(
    key,
    () => inDrawing((drawing) => drawing.plan(rig!, facing, level, options)),
    // What was drawn stays until the next is ready: nothing moves away under a finger.
    { keepPreviousData: true },
  );
  return { bound: data, failed: error !== undefined && !data, again: () => void mutate() };
}

/** What a part does on this rig, step by step, with the twin's numbers. */
export function useExplained(
  rig: RigUnderTest,
  unit: number,
  part: string | null,
): Explained | undefined {
  const { data } = useSWRImmutable<Explained, Error>(
    part && `explain ${unit} ${part} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.explain(rig, unit, part!)),
  );
  return data;
}
