import type { PressureUnit, School } from '@keen-bleed/contract';
import { rigKey, sayPressure, type RigUnderTest } from '@keen-bleed/core';
import { DOWN_TO_PSI, PRESSED_PSI, type Applications } from '@keen-bleed/core/checks';
import { View } from 'react-native';
import useSWRImmutable from 'swr/immutable';
import { inDrawing } from '../air/useDrawn';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

interface ApplicationsTableProps {
  rig: RigUnderTest;
  /** By tank's place. */
  waterMl: Readonly<Record<string, number>>;
  unit: PressureUnit;
  school: School;
}

const TANKS: Readonly<Record<School, Readonly<Record<string, string>>>> = {
  words: { 'primary tank': 'Primary', 'secondary tank': 'Secondary' },
  numbers: { 'primary tank': 'Circuit 1 (21)', 'secondary tank': 'Circuit 2 (22)' },
};
const ALL_THE_WAY_PSI = 100;

/** How often this rig brakes with the engine off, by tank and by how hard the pedal is pressed; counted on its twin. */
export function ApplicationsTable({ rig, waterMl, unit, school }: ApplicationsTableProps) {
  const { data } = useSWRImmutable(
    `applications ${JSON.stringify(waterMl)} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.applications(rig, waterMl)),
    { keepPreviousData: true },
  );
  if (!data || data.dry.length === 0) return null;
  const tanks = [...new Set(data.dry.map(({ tank }) => tank))];
  const count = (all: readonly Applications[], tank: string, pedalPsi: number) => {
    const of = all.find((each) => each.tank === tank && each.pedalPsi === pedalPsi)?.count ?? 0;
    return of >= 60 ? '60+' : of.toFixed(of < 10 ? 1 : 0);
  };
  const cell = { flex: 1, textAlign: 'right' } as const;
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        With the engine off
      </Txt>
      <Txt as="small" tone="quiet">
        {`Applications from cut-out down to ${sayPressure(DOWN_TO_PSI, unit)} in each tank, by how hard the pedal is pressed.`}
      </Txt>
      <View style={{ flexDirection: 'row', gap: space.near }}>
        <Txt as="smallBold" style={{ flex: 1.4 }}>
          Pedal
        </Txt>
        {PRESSED_PSI.map((psi) => (
          <Txt key={psi} as="smallBold" style={cell}>
            {psi > ALL_THE_WAY_PSI ? 'full' : sayPressure(psi, unit)}
          </Txt>
        ))}
      </View>
      <View role="list" aria-label="Applications with the engine off">
        {tanks.map((tank) => (
          <View key={tank} role="listitem">
            <Rule />
            <View style={{ flexDirection: 'row', gap: space.near, paddingVertical: space.near }}>
              <Txt as="body" style={{ flex: 1.4 }}>
                {TANKS[school][tank] ?? tank}
              </Txt>
              {PRESSED_PSI.map((psi) => {
                const now = count(data.now, tank, psi);
                const dry = count(data.dry, tank, psi);
                return (
                  <View key={psi} style={{ flex: 1, alignItems: 'flex-end' }}>
                    <Txt as="number">{now}</Txt>
                    {now === dry ? null : <Txt as="small" tone="quiet">{`dry ${dry}`}</Txt>}
                  </View>
                );
              })}
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
