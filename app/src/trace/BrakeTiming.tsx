import type { PressureUnit } from '@keen-bleed/contract';
import { rounded, sayPressure } from '@keen-bleed/core';
import {
  judgeMove,
  TIMING_MOST_S,
  timedKinds,
  type BrakeMove,
  type TimedKind,
} from '@keen-bleed/core/trace';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { KeepTiming } from './KeepTiming';
import type { TraceFound } from '../recorded/traceWorker';

const KINDS: Readonly<Record<TimedKind, string>> = {
  truck: 'truck or bus',
  'towing-trailer': 'trailer that tows',
  trailer: 'trailer',
  dolly: 'dolly',
};
const sayWay = (way: BrakeMove['way'], unit: PressureUnit) =>
  way === 'apply'
    ? `on, to ${sayPressure(60, unit)}`
    : `off, ${sayPressure(95, unit)} to ${sayPressure(5, unit)}`;
const COVERAGE = 1.96;
/** Readings up to so far apart time a stamp well, s. */
const FINE_S = 0.02;

/** How fast the brakes went on and off in a line or chamber that was recorded, beside what is allowed. */
export function BrakeTiming({
  moves,
  unitId,
  fileName,
}: Pick<TraceFound, 'moves'> & {
  /** The unit it was recorded on; null where that is not known. */
  unitId: string | null;
  fileName: string;
}) {
  const { unit } = usePrefs();
  const [keeping, setKeeping] = useState<BrakeMove | null>(null);
  const [kind, setKind] = useState<TimedKind>('truck');
  if (moves.length === 0) return null;
  const coarse = Math.max(...moves.map(({ sampleS }) => sampleS));
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Brakes on and off
      </Txt>
      <Choice
        label="Recorded on a"
        note={`Allowed: on in ${TIMING_MOST_S[kind].apply} s, off in ${TIMING_MOST_S[kind].release} s, with ${sayPressure(100, unit)} in the tanks and the pedal moved at once. On is timed from the line’s first rise: the pedal moved a little before.`}
        options={timedKinds.map((value) => ({ value, title: KINDS[value] }))}
        value={kind}
        onChange={setKind}
      />
      <View role="list" aria-label="Brakes on and off">
        {moves.map((move) => (
          <View key={`${move.title} ${move.atS}`} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{`${move.title}: ${sayWay(move.way, unit)}`}</Txt>
                <Txt as="small" tone="quiet">
                  {`at ${rounded(move.atS, 1)} s, a reading every ${rounded(1000 * move.sampleS, 0)} ms`}
                </Txt>
              </View>
              <View style={{ alignItems: 'flex-end' }}>
                <Txt as="numberBold">
                  {`${move.seconds.toFixed(2)} ± ${Math.max(0.01, COVERAGE * move.deviation).toFixed(2)} s`}
                </Txt>
                <VerdictSign verdict={judgeMove(move, kind)} />
              </View>
              {unitId ? (
                <Button
                  title="Keep…"
                  label={`Keep for a chamber: ${sayWay(move.way, unit)}, at ${rounded(move.atS, 1)} s`}
                  onPress={() => setKeeping(move)}
                />
              ) : null}
            </View>
          </View>
        ))}
        <Rule />
      </View>
      {unitId && keeping ? (
        <KeepTiming
          unitId={unitId}
          move={keeping}
          fileName={fileName}
          onLeave={() => setKeeping(null)}
        />
      ) : null}
      {coarse > FINE_S ? (
        <Txt as="small" tone="quiet">
          {`Readings ${rounded(1000 * coarse, 0)} ms apart leave much open: record every 20 ms or closer.`}
        </Txt>
      ) : null}
    </View>
  );
}
