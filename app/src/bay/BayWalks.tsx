import type { Check } from '@keen-bleed/core/checks';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { BayBench } from './BayBench';
import { BayHunt } from './BayHunt';
import type { BayRig, BaySetup } from './bayProtocol';
import { BayWater } from './BayWater';
import type { PracticeLog } from './usePracticeLog';

/** What the walks in the Bay are made on: the rig, what was done on it, and a hand to do more. */
export interface BayWalk {
  setup: BaySetup;
  rig: BayRig;
  log: PracticeLog;
  /** Does a check with the rig brought into its state. */
  onCheck: (check: Check) => void;
}

const WALKS = [
  { value: 'hunt', title: 'Hunt' },
  { value: 'water', title: 'Water' },
  { value: 'bench', title: 'Bench' },
] as const;

/** Hunt, Water and Bench on a rig that does not exist: the same walks, with the twin's own answers. */
export function BayWalks(walk: BayWalk) {
  const [open, setOpen] = useState<(typeof WALKS)[number]['value'] | null>(null);
  if (open === null) {
    return (
      <View style={{ gap: space.hair }}>
        <Button
          title="Walk round it"
          onPress={() => setOpen('hunt')}
          style={{ alignSelf: 'flex-start' }}
        />
        <Txt as="small" tone="quiet">
          Soap on every joint, each drain, each valve on the bench: as in the yard.
        </Txt>
      </View>
    );
  }
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Walk round it
      </Txt>
      <Segments label="Which walk" options={WALKS} value={open} onChange={setOpen} />
      {open === 'hunt' ? <BayHunt {...walk} /> : null}
      {open === 'water' ? <BayWater {...walk} /> : null}
      {open === 'bench' ? <BayBench {...walk} /> : null}
    </View>
  );
}
