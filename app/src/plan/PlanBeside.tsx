import { unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { actsAt } from '@keen-bleed/core/checks';
import { router } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { PlanView } from './PlanView';
import { usePlan } from './usePlan';

interface PlanBesideProps {
  rig: RigUnderTest;
  title: string;
  /** The step whose parts are ringed, or the parts themselves by their keys. */
  stepId?: string | null;
  at?: ReadonlySet<string>;
}

/** The rig drawn beside something else: where a step acts, and the way to the drawing itself. */
export function PlanBeside({ rig, title, stepId = null, at }: PlanBesideProps) {
  const { unit } = usePrefs();
  const [box, onBox] = useBoxSize();
  const { bound } = usePlan(rig, 'up', { show: 'rig' });
  const keys = useMemo(
    () =>
      at ??
      new Set(
        stepId === null ? [] : actsAt(rig, stepId).map(({ unit: of, part }) => `${of} ${part}`),
      ),
    [at, rig, stepId],
  );
  const [front] = unitsOf(rig);
  return (
    <View style={{ gap: space.near }} onLayout={onBox}>
      <Txt as="heading" heading={2}>
        {title}
      </Txt>
      {bound && box.width > 0 ? (
        <View role="group" aria-label="The rig from above">
          <PlanView
            bound={bound}
            frame={null}
            unit={unit}
            circuit={null}
            chosen={null}
            onChoose={() => router.push(`/unit/${front?.id ?? ''}/air`)}
            fit={box.width}
            actsAt={keys}
          />
        </View>
      ) : null}
    </View>
  );
}
