import type { GaugeChannel, PressureUnit, School } from '@keen-bleed/contract';
import { fromPsi, rounded } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import { useState } from 'react';
import { View } from 'react-native';
import { useLinkedGauge } from '../linked/useLinkedGauge';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { sayPort } from './figureWords';

interface TakeBothProps {
  check: Check;
  unitId: string | null;
  school: School;
  unit: PressureUnit;
  /** The first row with nothing in it; under zero where all are read. */
  next: number;
  onTake: (row: number, inText: string, outText: string) => void;
}

const CHANNELS: Readonly<Record<string, GaugeChannel>> = {
  'primary tank': 'primary',
  'secondary tank': 'secondary',
  'supply tank': 'supply',
};

/** Both readings at once from a linked gauge set, where its channels are at the two ports. */
export function TakeBoth({ check, unitId, school, unit, next, onTake }: TakeBothProps) {
  const { doing } = check;
  const [from, to] =
    doing.does === 'compare' ? [CHANNELS[doing.from], CHANNELS[doing.to]] : [undefined, undefined];
  const [linked, setLinked] = useState(false);
  const one = useLinkedGauge(linked && from ? unitId : null, from ?? 'primary');
  const other = useLinkedGauge(linked && to ? unitId : null, to ?? 'secondary');
  if (!from || !to || unitId === null) return null;
  if (!linked) {
    return <Button title="Read both off the gauge set" onPress={() => setLinked(true)} />;
  }
  const [here, there] = [one?.gauge.psi ?? null, other?.gauge.psi ?? null];
  const say = (psi: number) => rounded(fromPsi(psi, unit), unit === 'bar' ? 2 : 1);
  return (
    <View style={{ gap: space.hair }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
        <Txt style={{ flex: 1 }} live="polite">
          {here === null || there === null
            ? (one?.said ?? 'gauge set silent')
            : `${sayPort(from, school)} ${say(here)}, ${sayPort(to, school)} ${say(there)} ${unit}`}
        </Txt>
        <Button
          title="Take both"
          size="glove"
          disabled={here === null || there === null || next < 0}
          onPress={() => {
            if (here !== null && there !== null) onTake(next, say(here), say(there));
          }}
        />
      </View>
    </View>
  );
}
