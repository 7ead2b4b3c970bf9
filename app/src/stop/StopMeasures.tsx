import type { StopAct } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { NewRunFact } from '../store/useRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { PhoneStopSheet } from './PhoneStopSheet';
import { RollerSheet } from './RollerSheet';

interface StopMeasuresProps {
  stepId: string;
  act: StopAct;
  maySimulate: boolean;
  tell: (fact: NewRunFact) => void;
}

/** The ways to measure a stop that is otherwise only watched. */
export function StopMeasures({ stepId, act, maySimulate, tell }: StopMeasuresProps) {
  const [sheet, setSheet] = useState<'roller' | 'phone' | null>(null);
  const [went] = act.items;
  const leave = () => setSheet(null);
  return (
    <View style={{ gap: space.near }}>
      <Txt as="smallBold">Or measure it</Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        {act.measures.includes('roller') ? (
          <Button title="Roller tester" size="glove" onPress={() => setSheet('roller')} />
        ) : null}
        {act.measures.includes('phone') ? (
          <Button title="This phone" size="glove" onPress={() => setSheet('phone')} />
        ) : null}
      </View>
      {sheet === 'roller' ? (
        <RollerSheet
          leastPct={act.leastPct}
          onDone={(measured) => {
            leave();
            tell({ kind: 'stop', stepId, measured, went: null });
          }}
          onLeave={leave}
        />
      ) : null}
      {sheet === 'phone' && went ? (
        <PhoneStopSheet
          leastPct={act.leastPct}
          went={went}
          maySimulate={maySimulate}
          onDone={(measured, how) => {
            leave();
            tell({ kind: 'stop', stepId, measured, went: how });
          }}
          onLeave={leave}
        />
      ) : null}
    </View>
  );
}
