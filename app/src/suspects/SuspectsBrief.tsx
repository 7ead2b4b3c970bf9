import type { Unit } from '@keen-bleed/contract';
import { unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { rigKey } from '../air/useDrawn';
import type { Evidence } from '@keen-bleed/core/diagnosis';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { LinkTo } from '../ui/LinkTo';
import { Txt } from '../ui/Txt';
import { ofHundred } from './SuspectList';
import { useSuspects } from './useSuspects';

/** Suspects named under a run's verdict. */
const NAMED = 3;

interface SuspectsBriefProps {
  units: readonly Unit[];
  /** What the run itself says. */
  evidence: readonly Evidence[];
}

/** Under a run that did not pass: what is most likely behind it, and the way to the rest. */
export function SuspectsBrief({ units, evidence }: SuspectsBriefProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const asked = useMemo(() => {
    const [unit, ...towed] = units;
    const rig: RigUnderTest = { unit: unit!, towed };
    const failures: string[] = [];
    const senses = me.senses ?? null;
    return {
      rig,
      rigKey: rigKey(rig),
      evidence,
      failures,
      unit: sayIn,
      senses,
      state: null,
      brief: true,
    };
  }, [evidence, me.senses, sayIn, units]);
  const { told } = useSuspects(asked);
  const [front] = unitsOf(asked.rig);
  return (
    <View style={{ gap: space.hair }}>
      {told && told.suspects.length > 0 ? (
        <View role="list" aria-label="Suspects">
          {told.suspects.slice(0, NAMED).map(({ faults, chance }) => (
            <View key={faults[0]!.id} role="listitem">
              <Txt>{`${ofHundred(chance)} in 100: ${faults.map(({ part, title }) => `${part}: ${title}`).join(', or ')}`}</Txt>
            </View>
          ))}
        </View>
      ) : (
        <Txt as="small" tone="quiet" live="polite">
          {told ? 'Nothing of the list stands out.' : 'Weighing what may be behind it…'}
        </Txt>
      )}
      {told?.rough ? (
        <Txt as="small" tone="quiet">
          Rough: not every fault is worked out yet.
        </Txt>
      ) : null}
      <LinkTo to={`/unit/${front?.id ?? ''}/hunt`}>
        <Txt as="bodyBold" tone="accent">
          Hunt the leaks, joint by joint
        </Txt>
      </LinkTo>
      <View style={{ flexDirection: 'row', columnGap: space.gap }}>
        <LinkTo to={`/unit/${front?.id ?? ''}/bench`}>
          <Txt as="bodyBold" tone="accent">
            Its valves on the bench
          </Txt>
        </LinkTo>
        <LinkTo to={`/unit/${front?.id ?? ''}/water`}>
          <Txt as="bodyBold" tone="accent">
            Its drains
          </Txt>
        </LinkTo>
      </View>
      <LinkTo to={`/unit/${front?.id ?? ''}/suspects`}>
        <Txt as="bodyBold" tone="accent">
          What is it? Suspects and the next check
        </Txt>
      </LinkTo>
    </View>
  );
}
