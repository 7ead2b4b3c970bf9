import { rigKey } from '@keen-bleed/core';
import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import {
  HELD_IN,
  heardOf,
  jointsOf,
  passes,
  type Budget,
  type HuntEvent,
  type Joint,
  type Pass,
  type SeenTable,
} from '@keen-bleed/core/hunt';
import { useEffect, useMemo, useState } from 'react';
import { View } from 'react-native';
import useSWRImmutable from 'swr/immutable';
import { inDrawing } from '../air/useDrawn';
import { BudgetRails } from '../hunt/BudgetRails';
import { HuntStanding } from '../hunt/HuntStanding';
import { PASS_TITLES } from '../hunt/huntWords';
import { sectionOf, type Hunt } from '../hunt/useHunt';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import type { BayWalk } from './BayWalks';
import { DoneRow } from './DoneRow';

/** A joint this likely to leak is pointed at. */
const LIKELY = 0.12;
/** Watched for two minutes from about here, and read to this, psi. */
const WATCHED = { fromPsi: 110, seconds: 120, readToPsi: 0.15 } as const;
const NEEDLES = ['primary', 'secondary', 'supply'] as const;
const WAIT_MS = 150;

/** The leak hunt on a rig in the Bay: holds are the catalogue's watches, soap is the twin's. */
export function BayHunt({ setup, rig, log, onCheck }: BayWalk) {
  const [pass, setPass] = useState<Pass>('parked');
  const joints = useMemo(() => jointsOf(rig.checks), [rig.checks]);
  const events = useMemo(() => eventsOf(rig.checks, joints, log.done), [joints, log.done, rig]);
  const table = useSWRImmutable(`seen ${rigKey(setup.rig)}`, () =>
    inDrawing((drawing) => drawing.seen(setup.rig)),
  );
  const budget = useBudget(table.data, joints, events);
  const said = (id: string) => log.done.find(({ checkId }) => checkId === id)?.said ?? null;
  const state = HELD_IN[pass];
  const watches = rig.checks.filter(
    ({ doing, state: of }) =>
      of.id === state && (doing.does === 'fall' || (doing.does === 'walk' && doing.of === 'air')),
  );
  const hunt: Pick<Hunt, 'budget' | 'failed' | 'joints'> = {
    budget,
    failed: table.error !== undefined,
    joints,
  };
  const units = [setup.rig.unit, ...setup.rig.towed];
  const airless = table.data?.airless ?? [];
  const titleOf = ({ title, unit }: Joint) =>
    units.length > 1 ? `${title} · ${units[unit]?.number ?? ''}` : title;
  return (
    <View style={{ gap: space.near }}>
      <HuntStanding hunt={hunt} units={units} titleOf={titleOf} />
      {budget && budget.lines.length > 0 ? (
        <BudgetRails lines={budget.lines} school={setup.rig.unit.ports} />
      ) : null}
      <Segments
        dense
        label="Pass"
        options={passes.map((value) => ({ value, title: PASS_TITLES[value] }))}
        value={pass}
        onChange={setPass}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        {watches.map((check) => (
          <Button
            key={check.id}
            title={check.title.replace(/ for two minutes$/, '').replace(/,.*$/, '')}
            label={`${check.title}, ${check.state.title}`}
            onPress={() => onCheck(check)}
          />
        ))}
      </View>
      <View role="list" aria-label={`Joints, ${PASS_TITLES[pass]}`}>
        {joints
          .filter((joint) => joint.pass === pass)
          .map((joint) => (
            <DoneRow
              key={joint.checkId}
              title={titleOf(joint)}
              said={said(joint.checkId)}
              does="Wet it"
              aside={
                (budget?.places.get(joint.place) ?? 0) >= LIKELY
                  ? 'likely here'
                  : pass !== 'running' && airless.includes(joint.place)
                    ? 'no air as it stands'
                    : null
              }
              onDo={() => onCheck(joint.check)}
            />
          ))}
        <Rule />
      </View>
      <Txt as="small" tone="quiet">
        A watch takes two minutes of the rig’s time. The rig is brought into the state of each pass.
      </Txt>
    </View>
  );
}

/** What was wetted and watched, as the budget takes it; the oldest first. */
function eventsOf(
  checks: readonly Check[],
  joints: readonly Joint[],
  done: BayWalk['log']['done'],
): HuntEvent[] {
  const placeOf = new Map(joints.map(({ checkId, place }) => [checkId, place]));
  return [...done].reverse().flatMap(({ checkId, answer }, atMs): HuntEvent[] => {
    const place = placeOf.get(checkId);
    if (place !== undefined && answer.kind === 'grade') {
      return [{ kind: 'wet', place, grade: answer.grade, atMs }];
    }
    const check = checks.find(({ id }) => id === checkId);
    if (!check) return [];
    const heard = heardOf(check, answer, atMs);
    return heard ? [{ kind: 'heard', ...heard }] : watched(check, answer, atMs);
  });
}

function watched({ doing, state }: Check, answer: CheckAnswer, atMs: number): HuntEvent[] {
  if (doing.does !== 'fall' || answer.kind !== 'number') return [];
  const needle = NEEDLES.find((each) => doing.place === `${each} tank`);
  const held = (['parked', 'released', 'red out', 'applied'] as const).find(
    (each) => each === state.id,
  );
  if (!needle || !held) return [];
  const { fromPsi, seconds, readToPsi } = WATCHED;
  const toPsi = fromPsi - (answer.value * seconds) / 60;
  return [{ kind: 'held', state: held, needle, fromPsi, toPsi, seconds, readToPsi, atMs }];
}

/** Weighed apart from the screen, a moment after the last thing was done. */
function useBudget(
  table: SeenTable | undefined,
  joints: readonly Joint[],
  events: readonly HuntEvent[],
): Budget | null {
  const [budget, setBudget] = useState<Budget | null>(null);
  useEffect(() => {
    if (!table || joints.length === 0) return undefined;
    let isNewest = true;
    const timer = setTimeout(() => {
      inDrawing((drawing) =>
        drawing.budget({
          table,
          joints: joints
            .filter(({ place }) => !table.airless.includes(place))
            .map((joint) => ({ place: joint.place, section: sectionOf(joint) })),
          events,
          ofRun: [],
          taught: [],
        }),
      ).then(
        (told) => isNewest && setBudget(told),
        // Without a budget the walk goes on.
        () => undefined,
      );
    }, WAIT_MS);
    return () => {
      isNewest = false;
      clearTimeout(timer);
    };
  }, [events, joints, table]);
  return budget;
}
