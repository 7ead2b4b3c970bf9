import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Pick } from '../ui/Pick';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import type { Named } from './bayProtocol';
import type { Bay } from './useBay';

const SOAP: Readonly<Record<string, string>> = {
  nothing: 'nothing',
  film: 'a film that barely swells',
  froth: 'froth',
  bubbles: 'a stream of bubbles',
  mist: 'mist, blown away',
};
const HEARD: Readonly<Record<string, string>> = {
  quiet: 'quiet',
  hiss: 'a hiss',
  blow: 'it blows',
};
const OPEN = [
  { value: 'shut', title: 'shut' },
  { value: 'open', title: 'open' },
] as const;
const COUPLED = [
  { value: 'right', title: 'right' },
  { value: 'crossed', title: 'crossed' },
  { value: 'apart', title: 'apart' },
] as const;

/** Soap bottle, ear, drains and couplers: what is done around the rig. */
export function BayChecks({ bay, onListen }: { bay: Bay; onListen: (port: string) => void }) {
  const { rig, move, frame } = bay;
  const [joint, setJoint] = useState(rig.joints[0]?.id ?? '');
  const [port, setPort] = useState(rig.exhausts[0]?.id ?? '');
  const [said, setSaid] = useState<{ at: string; what: string }[]>([]);
  const [tap, setTap] = useState(rig.taps[0]?.id ?? '');
  const note = (at: string, what: string) =>
    setSaid((before) => [{ at, what }, ...before].slice(0, 5));
  return (
    <View style={{ gap: space.step }}>
      <Txt as="heading" heading={2}>
        Around the rig
      </Txt>
      <Row>
        <PickNamed label="Soap on" options={rig.joints} value={joint} onChange={setJoint} />
        <Button
          title="Wet it"
          onPress={() =>
            void bay
              .soap(joint)
              .then((found) => note(nameOf(rig.joints, joint), SOAP[found] ?? found))
          }
        />
      </Row>
      <Row>
        <PickNamed label="Listen at" options={rig.exhausts} value={port} onChange={setPort} />
        <Button
          title="Listen"
          onPress={() => {
            onListen(port);
            void bay
              .listen(port)
              .then((found) => note(nameOf(rig.exhausts, port), HEARD[found] ?? found));
          }}
        />
      </Row>
      {said.length > 0 ? (
        <View role="log" aria-label="Found" style={{ gap: space.hair }}>
          {said.map(({ at, what }, i) => (
            <Txt key={said.length - i} tone={i === 0 ? 'ink' : 'quiet'}>{`${at}: ${what}`}</Txt>
          ))}
        </View>
      ) : null}
      {rig.taps.length > 0 ? (
        <Row>
          <PickNamed label="Drain or cock" options={rig.taps} value={tap} onChange={setTap} />
          <Segments
            label={`Drain or cock, ${nameOf(rig.taps, tap)}`}
            options={OPEN}
            value={frame.opened.includes(tap) ? 'open' : 'shut'}
            onChange={(value) => move({ kind: 'open', way: tap, share: value === 'open' ? 1 : 0 })}
          />
        </Row>
      ) : null}
      {rig.hasCouplers ? (
        <Choice
          label="Couplers"
          options={COUPLED}
          value={frame.coupling}
          onChange={(how) => move({ kind: 'couple', how })}
        />
      ) : null}
    </View>
  );
}

const nameOf = (things: readonly Named[], id: string) =>
  things.find((each) => each.id === id)?.name ?? id;

interface PickNamedProps {
  label: string;
  options: readonly Named[];
  value: string;
  onChange: (id: string) => void;
}

/** One of many by its name, which is unique on a rig. */
function PickNamed({ label, options, value, onChange }: PickNamedProps) {
  return (
    <Pick
      label={label}
      options={options.map(({ name }) => name)}
      value={nameOf(options, value)}
      onChange={(name) => onChange(options.find((each) => each.name === name)?.id ?? value)}
    />
  );
}

function Row({ children }: { children: React.ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: space.near }}>
      {children}
    </View>
  );
}
