import type { StopMeasured } from '@keen-bleed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { readNumber } from './readNumber';

/** Newtons in a pound of force, kilograms in a pound. */
const N_PER_LBF = 4.4482216;
const KG_PER_LB = 0.45359237;

interface RollerSheetProps {
  /** The braking that must be reached, percent of the weight; null where the rule set has none. */
  leastPct: number | null;
  onDone: (measured: StopMeasured) => void;
  onLeave: () => void;
}

/** What a roller tester printed: the braking forces together, and the weight that the rule divides them by. */
export function RollerSheet({ leastPct, onDone, onLeave }: RollerSheetProps) {
  const { unit } = usePrefs();
  const inPounds = unit === 'psi';
  const [force, setForce] = useState('');
  const [weight, setWeight] = useState('');
  const [problems, setProblems] = useState<{ force?: string; weight?: string }>({});
  const done = () => {
    const [forceIn, weightIn] = [readNumber(force), readNumber(weight)];
    const forceN = forceIn === null ? null : forceIn * (inPounds ? N_PER_LBF : 1_000);
    const massKg = weightIn === null ? null : weightIn * (inPounds ? KG_PER_LB : 1);
    const isForce = forceN !== null && forceN > 0 && forceN <= 2_000_000;
    const isWeight = massKg !== null && massKg >= 500 && massKg <= 200_000;
    if (isForce && isWeight) return onDone({ by: 'roller', forceN, massKg });
    return setProblems({
      ...(isForce
        ? {}
        : { force: `Enter the sum of all wheels, such as ${inPounds ? '18,000' : '80'}.` }),
      ...(isWeight
        ? {}
        : { weight: `Enter the weight on the plate, such as ${inPounds ? '33,000' : '15000'}.` }),
    });
  };
  return (
    <Sheet title="Roller tester" at="foot" onLeave={onLeave}>
      <Txt tone="quiet">
        {leastPct === null
          ? 'Braking force of all wheels, by the weight your rule names.'
          : `Needed: ${leastPct} % of the weight, sure to 95 %.`}
      </Txt>
      <Field
        label="Braking force, all wheels"
        hint={inPounds ? 'lbf' : 'kN'}
        numeric
        value={force}
        onChange={setForce}
        problem={problems.force}
      />
      <Field
        label="Weight it is divided by"
        hint={inPounds ? 'lb' : 'kg'}
        numeric
        value={weight}
        onChange={setWeight}
        problem={problems.weight}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep result" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
