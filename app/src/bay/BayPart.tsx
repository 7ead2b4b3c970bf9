import type { PressureUnit } from '@keen-bleed/contract';
import type { CouplerState, DeviceState } from '@keen-bleed/core/twin';
import { plumbingOf, sayPressure, unitsOf } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { useState } from 'react';
import { View } from 'react-native';
import { PartCard } from '../plan/PartCard';
import { positionsOf } from '../plan/symbols';
import { useExplained } from '../plan/usePlan';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Txt } from '../ui/Txt';
import type { BayFault, BaySetup, HowBad } from './bayProtocol';
import type { Teed } from './teed';
import type { Bay } from './useBay';

const OPEN = [
  { value: 'shut', title: 'shut' },
  { value: 'open', title: 'open' },
] as const;
const COUPLED = [
  { value: 'right', title: 'right' },
  { value: 'crossed', title: 'crossed' },
  { value: 'apart', title: 'apart' },
] as const;
const HOW_BAD = [
  { value: 'slight', title: 'slight' },
  { value: 'plain', title: 'plain' },
  { value: 'bad', title: 'bad' },
] as const;

interface BayPartProps {
  bay: Bay;
  setup: BaySetup;
  symbol: PlanSymbol;
  seeing: boolean;
  onCheck: (check: Check) => void;
  /** Gauges that stand in the rig's lines. */
  teed: readonly Teed[];
  onTee: (at: Teed) => void;
  /** Says that a fault is the one: null where faults are set openly. */
  onSay: ((fault: BayFault) => void) | null;
  said: readonly string[];
  onLeave: () => void;
}

/** The part that was tapped in the Bay: what is done at it by hand, ear, soap and gauge, and what may be wrong with it. */
export function BayPart({
  bay,
  setup,
  symbol,
  seeing,
  onCheck,
  teed,
  onTee,
  onSay,
  said,
  onLeave,
}: BayPartProps) {
  const { unit: sayIn } = usePrefs();
  const [inside, setInside] = useState<string | null>(null);
  const [howBad, setHowBad] = useState<HowBad>('plain');
  const partId = inside ?? symbol.part;
  const unit = unitsOf(setup.rig)[symbol.unit];
  const explained = useExplained(setup.rig, symbol.unit, partId);
  const part = unit && plumbingOf(unit).parts.find(({ id }) => id === partId);
  if (!part) return null;
  const group = partId.split('.')[0];
  const isHere = (at: { unit: number }, id: string | null) =>
    at.unit === symbol.unit && (id === partId || id === group);
  const checks = bay.rig.checks.filter((check) => isHere(check, check.part));
  const taps = bay.rig.taps.filter((tap) => isHere(tap, tap.part));
  const faults = bay.rig.faults.filter((fault) => isHere(fault, fault.partId));
  const { frame, move } = bay;
  const place = bay.rig.places.findIndex(
    (each) => each.unit === symbol.unit && each.part === partId,
  );
  const device = seeing ? deviceOf(bay, symbol.unit, partId) : null;
  return (
    <PartCard
      unit={unit}
      part={part}
      sayIn={sayIn}
      state={positionsOf(part.role).length > 0 ? device : null}
      now={seeing ? nowWords(place < 0 ? null : (frame.psi[place] ?? 0), device, sayIn) : null}
      explained={explained}
      checks={checks}
      onCheck={onCheck}
      problems={[]}
      history={[]}
      failures={[]}
    >
      {place >= 0 ? (
        <Button
          title={
            teed.some(({ node }) => node === place)
              ? 'Take the gauge off'
              : 'Tee a gauge in, to stay'
          }
          onPress={() => onTee({ node: place, title: part.title })}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {taps.map((tap) => (
        <Choice
          key={tap.id}
          label={tap.name}
          options={OPEN}
          value={frame.opened.includes(tap.id) ? 'open' : 'shut'}
          onChange={(value) => move({ kind: 'open', way: tap.id, share: value === 'open' ? 1 : 0 })}
        />
      ))}
      {part.role === 'coupler' && bay.rig.hasCouplers ? (
        <Choice
          label="Couplers"
          options={COUPLED}
          value={frame.coupling}
          onChange={(how: CouplerState) => move({ kind: 'couple', how })}
        />
      ) : null}
      {symbol.folded.length > 0 ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
          {[symbol.part, ...symbol.folded]
            .filter((id) => id !== partId)
            .slice(0, 8)
            .map((id) => (
              <Button
                key={id}
                title={plumbingOf(unit).parts.find((each) => each.id === id)?.title ?? id}
                onPress={() => setInside(id === symbol.part ? null : id)}
              />
            ))}
        </View>
      ) : null}
      {faults.length > 0 ? (
        <View style={{ gap: space.near }}>
          <Txt as="bodyBold">
            {onSay ? 'What may be wrong with it' : 'What is made wrong with it'}
          </Txt>
          {onSay ? null : (
            <Choice label="How bad" options={HOW_BAD} value={howBad} onChange={setHowBad} />
          )}
          <View role="list" aria-label="Faults of this part">
            {faults.slice(0, 8).map((fault) => {
              const isSaid = onSay
                ? said.includes(fault.id)
                : frame.faults.includes(`${fault.part}: ${fault.title}`);
              return (
                <View
                  key={fault.id}
                  role="listitem"
                  style={{
                    flexDirection: 'row',
                    alignItems: 'center',
                    gap: space.near,
                    paddingVertical: 2,
                  }}
                >
                  <View style={{ flex: 1 }}>
                    <Txt as={isSaid ? 'bodyBold' : 'body'}>{fault.title}</Txt>
                  </View>
                  <Button
                    title={isSaid ? (onSay ? 'Not this' : 'Set') : onSay ? 'It is this' : 'Set it'}
                    label={`${isSaid ? (onSay ? 'It is not this' : 'Set') : onSay ? 'It is this' : 'Set it now'}: ${fault.part}: ${fault.title}`}
                    disabled={isSaid && !onSay}
                    onPress={() =>
                      onSay ? onSay(fault) : move({ kind: 'fault', id: fault.id, howBad })
                    }
                  />
                </View>
              );
            })}
          </View>
        </View>
      ) : null}
      <Button title="Close" manner="quiet" onPress={onLeave} style={{ alignSelf: 'flex-start' }} />
    </PartCard>
  );
}

/** What a part does now, in words; null where it has neither a pressure nor a state of its own. */
function nowWords(
  psi: number | null,
  device: DeviceState | null,
  unit: PressureUnit,
): string | null {
  const words = [psi === null ? null : sayPressure(Math.max(0, psi), unit), device].filter(Boolean);
  return words.length === 0 ? null : `Now ${words.join(', ')}.`;
}

/** The state of a part's own valve now. */
function deviceOf({ rig, frame }: Bay, unit: number, part: string) {
  const way = rig.ways.find(
    (each) => each.valve !== null && each.unit === unit && each.part === part,
  );
  return frame.devices.find(({ id }) => id === way?.valve)?.state ?? null;
}
