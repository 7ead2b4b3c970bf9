import type { StopMeasured } from '@keen-bleed/contract';
import { sayParts, type LookItem } from '@keen-bleed/core';
import { brakingOf, simulatedStop, SHORTEST_PART_S } from '@keen-bleed/core/stop';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useMotion, type NoMotion } from './useMotion';

interface PhoneStopSheetProps {
  leastPct: number | null;
  /** How it went, with its answers. */
  went: LookItem;
  /** A simulated sensor may stand in: for practice, and for shops in demo mode. */
  maySimulate: boolean;
  onDone: (measured: StopMeasured, went: string) => void;
  onLeave: () => void;
}

const NONE: Readonly<Record<NoMotion, readonly [title: string, text: string]>> = {
  'plain-http': [
    'No motion sensor over plain HTTP',
    'Open Keen Bleed by its HTTPS address, or use a roller tester.',
  ],
  missing: ['This device has no motion sensor', 'Use a phone, or a roller tester.'],
  refused: [
    'Motion was not allowed',
    'Allow motion for this page in the browser’s settings, then start again.',
  ],
  silent: ['The motion sensor gives nothing', 'Use another phone, or a roller tester.'],
};

/** Speeds a stop is made from: walking pace, and where the yard allows more. */
const SPEEDS = [5, 6, 20] as const;
const KMH_PER_MPH = 1.609344;
/** What the simulated sensor feels: a good stop, share of g, with a short ramp. */
const SIMULATED = { g: 0.55, rampS: 0.2 };

/** The service stop by the phone on the floor: stand, drive, stop, and how it went. */
export function PhoneStopSheet({
  leastPct,
  went,
  maySimulate,
  onDone,
  onLeave,
}: PhoneStopSheetProps) {
  const { unit } = usePrefs();
  const motion = useMotion();
  const [mph, setMph] = useState<(typeof SPEEDS)[number]>(20);
  const [measured, setMeasured] = useState<StopMeasured | null>(null);
  const [isShort, setShort] = useState(false);
  const { phase } = motion;
  const saySpeed = (speed: number) =>
    unit === 'psi' ? `${speed} mph` : `${Math.round(speed * KMH_PER_MPH)} km/h`;
  const again = () => {
    setMeasured(null);
    setShort(false);
    motion.reset();
  };
  if (measured) {
    return (
      <Sheet
        title={
          measured.by === 'phone' && measured.simulated ? 'A simulated stop' : 'What the phone felt'
        }
        at="foot"
        onLeave={onLeave}
      >
        <Felt measured={measured} leastPct={leastPct} />
        <Txt as="smallBold">{went.ask}</Txt>
        <View style={{ gap: space.near }}>
          {went.options.map(({ value, title }) => (
            <Button
              key={value}
              title={sayParts(title, 'words')}
              label={`${went.ask}: ${title}`}
              size="glove"
              onPress={() => onDone(measured, value)}
            />
          ))}
        </View>
        <Button title="Stop again" manner="quiet" size="glove" onPress={again} />
      </Sheet>
    );
  }
  return (
    <Sheet title="Measure with this phone" at="foot" onLeave={onLeave}>
      {typeof phase === 'object' ? (
        <Notice manner="trouble" title={NONE[phase.none][0]} text={NONE[phase.none][1]} />
      ) : null}
      {isShort ? (
        <Notice
          manner="trouble"
          title="Too little was felt"
          text="Start again, and wait until it stands."
        />
      ) : null}
      {phase === 'standing' ? (
        <Txt as="stepTitle" live="polite">
          Stand still
        </Txt>
      ) : phase === 'driving' ? (
        <>
          <Txt as="stepTitle" live="polite">{`Drive: ${saySpeed(mph)}, then brake hard`}</Txt>
          <Button
            title="It stands"
            manner="main"
            size="glove"
            onPress={() => {
              const felt = motion.end(mph);
              setMeasured(felt);
              setShort(felt === null);
            }}
          />
        </>
      ) : (
        <>
          <Caution
            lines={[
              'Moving tests only in a clear yard. The phone lies on the floor: do not reach for it while it moves.',
            ]}
          />
          <Txt tone="quiet">
            Flat on the floor, against a wall of the cab. Stand still, drive, brake, stand.
          </Txt>
          <Segments
            label="Speed"
            size="glove"
            options={SPEEDS.map((speed) => ({ value: String(speed), title: saySpeed(speed) }))}
            value={String(mph)}
            onChange={(value) => setMph(Number(value) as (typeof SPEEDS)[number])}
          />
          {mph < 15 ? (
            <Txt as="small" tone="quiet">
              {`Walking pace leaves under ${SHORTEST_PART_S} s of full braking on most vehicles: ${saySpeed(20)} tells more.`}
            </Txt>
          ) : null}
          <Button title="Start" manner="main" size="glove" onPress={motion.begin} />
          {maySimulate ? (
            <Button
              title="Simulated stop"
              manner="quiet"
              size="glove"
              onPress={() =>
                setMeasured(simulatedStop({ fromMph: mph, ...SIMULATED }, Math.random))
              }
            />
          ) : null}
        </>
      )}
    </Sheet>
  );
}

function Felt({ measured, leastPct }: { measured: StopMeasured; leastPct: number | null }) {
  const braking = brakingOf(measured);
  if (braking.outcome === 'none') {
    return <Notice manner="trouble" title="Can’t tell" text="Keep it as that, or stop again." />;
  }
  const least = braking.pct - 1.645 * braking.sdPct;
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="clock">{`${braking.pct.toFixed(0)} %`}</Txt>
      <Txt tone="quiet">
        {`at least ${least.toFixed(0)} %${leastPct === null ? '' : `, limit ${leastPct}`}`}
      </Txt>
    </View>
  );
}
