import type { HeldNeedle, HeldState, PressureUnit, School } from '@keen-bleed/contract';
import { fromPsi, rounded, sayPressure, toPsi } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { ISOLATES, NEEDLE_NUMBERS, NEEDLE_TITLES, STATE_TITLES } from './huntWords';
import { deviceMs } from '../wire/serverClock';

/** A hold that was begun: where the needle stood, and when. */
export interface Begun {
  state: HeldState;
  needle: HeldNeedle;
  fromPsi: number;
  atMs: number;
}

/** What a hold came to. */
export interface HeldDone extends Begun {
  toPsi: number;
  seconds: number;
}

interface HoldSheetProps {
  unit: PressureUnit;
  school: School;
  states: readonly HeldState[];
  needles: readonly HeldNeedle[];
  /** What it opens with. */
  state: HeldState;
  needle: HeldNeedle;
  begun: Begun | null;
  onBegin: (begun: Begun) => void;
  onDrop: () => void;
  onDone: (done: HeldDone) => void;
  onLeave: () => void;
}

const MOST_PSI = 300;
/** Shorter than this a needle tells nothing, s. */
const LEAST_S = 20;
/** Longer than this it is another day's air, or a clock that jumped, s. */
const MOST_S = 7_200;
/** Two readings a needle may rise by: the eye. */
const RISES_PSI = 2;

const readPsi = (text: string, unit: PressureUnit): number | null => {
  const number = Number(text.trim().replace(',', '.'));
  const psi = toPsi(number, unit);
  return text.trim() === '' || !Number.isFinite(number) || number < 0 || psi > MOST_PSI
    ? null
    : psi;
};

/** Times a hold: the needle at first, the watch, the needle at the end. It goes on while the sheet is closed. */
export function HoldSheet({
  unit,
  school,
  states,
  needles,
  begun,
  onBegin,
  onDrop,
  onDone,
  onLeave,
  ...first
}: HoldSheetProps) {
  const [state, setState] = useState<HeldState>(begun?.state ?? first.state);
  const [needle, setNeedle] = useState<HeldNeedle>(begun?.needle ?? first.needle);
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [problem, setProblem] = useState<string>();
  const [nowMs, setNowMs] = useState(() => deviceMs());
  useEffect(() => {
    if (!begun) return;
    const tick = setInterval(() => setNowMs(deviceMs()), 500);
    return () => clearInterval(tick);
  }, [begun]);
  const titles = school === 'numbers' ? NEEDLE_NUMBERS : NEEDLE_TITLES;
  const example = rounded(fromPsi(118, unit), unit === 'bar' ? 2 : 0);
  const wrong = `Give what the needle shows, such as ${example} ${unit}.`;
  const begin = () => {
    const fromPsiAt = readPsi(from, unit);
    if (fromPsiAt === null) return setProblem(wrong);
    setProblem(undefined);
    onBegin({ state, needle, fromPsi: fromPsiAt, atMs: deviceMs() });
  };
  const end = () => {
    if (!begun) return;
    const toPsiAt = readPsi(to, unit);
    const seconds = Math.round((deviceMs() - begun.atMs) / 1000);
    if (toPsiAt === null) return setProblem(wrong);
    if (seconds < LEAST_S) return setProblem(`Watch it for ${LEAST_S} seconds at least.`);
    if (seconds > MOST_S)
      return setProblem(
        'That is over two hours, or the clock of this device jumped: drop it, and watch again.',
      );
    if (toPsiAt > begun.fromPsi + RISES_PSI)
      return setProblem(
        'The needle rose: see that the engine is off and no shop air is on, and read again.',
      );
    onDone({ ...begun, toPsi: toPsiAt, seconds });
  };
  const elapsed = begun ? Math.max(0, Math.floor((nowMs - begun.atMs) / 1000)) : 0;
  return (
    <Sheet title="Watch a needle" at="foot" onLeave={onLeave}>
      {begun ? (
        <>
          <Txt>{`${STATE_TITLES[begun.state]} · ${titles[begun.needle]} · from ${sayPressure(begun.fromPsi, unit)}`}</Txt>
          <Txt as="clock" testID="hold-clock">
            {`${Math.floor(elapsed / 60)}:${String(elapsed % 60).padStart(2, '0')}`}
          </Txt>
          <Txt as="small" tone="quiet">
            Two minutes tell a lot; five tell a slow leak. The watch goes on while this is closed.
          </Txt>
          <Field
            numeric
            label="The needle now"
            hint={unit}
            value={to}
            onChange={setTo}
            problem={problem}
          />
          <View style={{ flexDirection: 'row', gap: space.step }}>
            <Button title="Drop it" size="glove" style={{ flex: 1 }} onPress={onDrop} />
            <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={end} />
          </View>
        </>
      ) : (
        <>
          <Choice
            label="The rig stands"
            note={ISOLATES[state]}
            options={states.map((value) => ({ value, title: STATE_TITLES[value] }))}
            value={state}
            onChange={setState}
          />
          {state === 'parked' ? null : (
            <Caution lines={['Chock the wheels both ways before the brakes are released.']} />
          )}
          <Choice
            label="Needle"
            options={needles.map((value) => ({ value, title: titles[value] }))}
            value={needle}
            onChange={setNeedle}
          />
          <Field
            numeric
            label="The needle at first"
            hint={`${unit}, engine off, air settled`}
            value={from}
            onChange={setFrom}
            problem={problem}
          />
          <View style={{ flexDirection: 'row', gap: space.step }}>
            <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
            <Button
              title="Start the watch"
              manner="main"
              size="glove"
              style={{ flex: 1 }}
              onPress={begin}
            />
          </View>
        </>
      )}
    </Sheet>
  );
}
