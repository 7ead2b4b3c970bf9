import type { PressureUnit, Unit } from '@keen-bleed/contract';
import { plumbingOf, portsOf, pressuresIn, sayPressure, type PartRole } from '@keen-bleed/core';
import type { Check, Explained } from '@keen-bleed/core/checks';
import type { DeviceState } from '@keen-bleed/core/twin';
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { sayPart } from '../parts/sayPart';
import { PhotoStrip } from '../photos/PhotoStrip';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { partNotes } from './partNotes';
import { positionPath, positionsOf } from './symbols';

/** Checks shown at a time: no list is longer than a hand can scan. */
const CHECKS_SHOWN = 5;

interface PartCardProps {
  unit: Unit;
  part: { id: string; role: PartRole; title: string };
  sayIn: PressureUnit;
  /** Its state now, where something runs. */
  state: DeviceState | null;
  /** What it is doing now, in words. */
  now: string | null;
  explained: Explained | undefined;
  checks: readonly Check[];
  onCheck: ((check: Check) => void) | null;
  /** What is wrong with it, or with the lines at it. */
  problems: readonly string[];
  history: readonly { id: string; when: string; what: string; photos: readonly string[] }[];
  failures: readonly string[];
  children?: ReactNode;
}

/** One part, large: what it is for, its states on this rig, its data, its checks, its history. */
export function PartCard({
  unit,
  part,
  sayIn,
  state,
  now,
  explained,
  checks,
  onCheck,
  problems,
  history,
  failures,
  children,
}: PartCardProps) {
  const wide = useWide();
  const [from, setFrom] = useState(0);
  const record = unit.parts?.find(({ partId }) => partId === part.id) ?? null;
  const start = from < checks.length ? from : 0;
  const shown = checks.slice(start, start + CHECKS_SHOWN);
  const about = (
    <>
      <Steps explained={explained} numbered={unit.ports === 'numbers'} sayIn={sayIn} />
      <Txt as="small" tone="quiet">
        {[sayPart(record, sayIn), sayPorts(unit, part)].filter(Boolean).join(' · ')}
      </Txt>
    </>
  );
  return (
    <View
      style={{ gap: wide ? space.wide : space.step, flexDirection: wide ? 'row' : 'column' }}
      role="region"
      aria-label={part.title}
    >
      <View style={{ gap: space.step, ...(wide ? { flex: 1 } : {}) }}>
        <View style={{ gap: space.hair }}>
          <Txt as="heading" heading={2}>
            {part.title}
          </Txt>
          <Txt>{partNotes[part.role]}</Txt>
          {now ? (
            // Not announced: it changes several times a second.
            <Txt as="bodyBold">{now}</Txt>
          ) : null}
        </View>
        {[...problems, ...failures].map((text) => (
          <Txt key={text} as="bodyBold" tone="fail">
            {text}
          </Txt>
        ))}
        <Positions role={part.role} state={state} />
        <PhotoStrip ids={record?.photos ?? []} of={part.title} />
        {children}
        {wide ? about : null}
      </View>
      <View style={{ gap: space.step, ...(wide ? { flex: 1 } : {}) }}>
        {checks.length > 0 ? (
          <View>
            <Txt as="bodyBold">Checks</Txt>
            <View role="list" aria-label={`Checks of ${part.title}`}>
              {shown.map((check) => (
                <View key={check.id} role="listitem">
                  <Rule />
                  <View
                    style={{
                      flexDirection: 'row',
                      alignItems: 'center',
                      gap: space.near,
                      paddingVertical: space.hair,
                    }}
                  >
                    <View style={{ flex: 1 }}>
                      <Txt>{pressuresIn(check.title, sayIn)}</Txt>
                      <Txt
                        as="small"
                        tone="quiet"
                      >{`${check.state.title} · about ${sayMinutes(check.minutes)}`}</Txt>
                    </View>
                    {onCheck ? (
                      <Button
                        title="Do it"
                        label={`Do it: ${check.title}, ${check.state.title}`}
                        onPress={() => onCheck(check)}
                      />
                    ) : null}
                  </View>
                </View>
              ))}
              <Rule />
            </View>
            {checks.length > CHECKS_SHOWN ? (
              <Button
                title={`More checks, ${start + shown.length} of ${checks.length} seen`}
                manner="quiet"
                onPress={() =>
                  setFrom(start + CHECKS_SHOWN < checks.length ? start + CHECKS_SHOWN : 0)
                }
                style={{ alignSelf: 'flex-start' }}
              />
            ) : null}
          </View>
        ) : null}
        {history.length > 0 ? (
          <View>
            <Txt as="bodyBold">What was found here</Txt>
            <View role="list" aria-label={`What was found at ${part.title}`}>
              {history.slice(0, 8).map(({ id, when, what, photos }) => (
                <View key={id} role="listitem" style={{ paddingVertical: space.hair }}>
                  <Txt as="small" tone="quiet">
                    {when}
                  </Txt>
                  <Txt>{what}</Txt>
                  <PhotoStrip ids={photos} of={what} />
                </View>
              ))}
            </View>
          </View>
        ) : null}
        {wide ? null : about}
      </View>
    </View>
  );
}

const sayMinutes = (minutes: number): string =>
  minutes < 1 ? 'half a minute' : minutes === 1 ? 'a minute' : `${Math.round(minutes)} minutes`;

/** Its ports, by word or by number, where they are joined. */
function sayPorts(unit: Unit, part: { id: string; role: PartRole }): string {
  const { lines } = plumbingOf(unit);
  const used = new Set(
    lines.flatMap(({ from, to }) =>
      [from, to].flatMap((end) => (end.part === part.id ? [end.port] : [])),
    ),
  );
  const titles = portsOf(part.role)
    .filter(({ id }) => used.has(id))
    .map(({ title, number }) =>
      unit.ports === 'numbers' && number
        ? number
        : title.replace(/, opening \d+$/, '').toLowerCase(),
    );
  return titles.length > 0 ? `ports: ${[...new Set(titles)].join(', ')}` : '';
}

const WORDS: Readonly<Record<DeviceState, string>> = { off: 'off', hold: 'hold', on: 'on' };
const POSITION = { width: 96, height: 44 } as const;

/** The positions of a valve, large, with the one it stands in. */
function Positions({ role, state }: { role: PartRole; state: DeviceState | null }) {
  const palette = usePalette();
  const positions = positionsOf(role);
  if (positions.length === 0) return null;
  return (
    <View
      role="img"
      aria-label={
        state
          ? `It is ${WORDS[state]}`
          : `Its positions: ${positions.map((each) => WORDS[each]).join(', ')}`
      }
      style={{ flexDirection: 'row', gap: space.near }}
    >
      {positions.map((each) => {
        const isNow = each === state;
        const box = { x: 1, y: 1, width: POSITION.width - 2, height: POSITION.height - 2 };
        return (
          <View key={each} style={{ alignItems: 'center', gap: 2 }}>
            <Svg width={POSITION.width} height={POSITION.height} aria-hidden>
              <Rect
                {...box}
                fill={isNow ? palette.accent : palette.ground}
                stroke={isNow ? palette.accent : palette.edge}
                strokeWidth={1.5}
              />
              <Path
                d={positionPath(each, {
                  x: 26,
                  y: 4,
                  width: POSITION.width - 52,
                  height: POSITION.height - 8,
                })}
                stroke={isNow ? palette.onAccent : palette.ink}
                strokeWidth={2}
                fill="none"
              />
            </Svg>
            <Txt as={isNow ? 'smallBold' : 'small'}>{WORDS[each]}</Txt>
          </View>
        );
      })}
    </View>
  );
}

interface StepsProps {
  explained: Explained | undefined;
  numbered: boolean;
  sayIn: PressureUnit;
}

/** What it does on this rig, step by step, by the twin. */
function Steps({ explained, numbered, sayIn }: StepsProps) {
  if (!explained || explained.steps.length === 0) return null;
  const { lag } = explained;
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="bodyBold">On this rig</Txt>
      <View role="list" aria-label="What it does, step by step">
        {explained.steps.map(({ title, state, ports }) => (
          <View key={title} role="listitem" style={{ flexDirection: 'row', gap: space.near }}>
            <View style={{ width: 128 }}>
              <Txt as="smallBold">{title}</Txt>
            </View>
            <View style={{ flex: 1 }}>
              <Txt as="small">
                {[
                  state ? WORDS[state] : null,
                  ...ports.map(
                    (port) =>
                      `${numbered && port.number ? port.number : port.title.toLowerCase()} ${sayPressure(port.psi, sayIn)}`,
                  ),
                ]
                  .filter(Boolean)
                  .join(', ')}
              </Txt>
            </View>
          </View>
        ))}
      </View>
      {lag && Number.isFinite(lag.withIt) ? (
        <Txt as="small" tone="quiet">
          {`${sayPressure(60, sayIn)} is at the chambers after ${lag.withIt.toFixed(2)} s; without the relay, by the line from the pedal alone, after ${lag.without.toFixed(2)} s.`}
        </Txt>
      ) : null}
      <Txt as="small" tone="quiet">
        By the rig’s twin, sound and as it is described.
      </Txt>
    </View>
  );
}
