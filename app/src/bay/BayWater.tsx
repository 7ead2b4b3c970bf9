import { amountOfGrade, totalMl, type Drained } from '@keen-bleed/core/water';
import { useMemo } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Caution } from '../ui/Caution';
import { Rule } from '../ui/Rule';
import { ApplicationsTable } from '../water/ApplicationsTable';
import type { BayWalk } from './BayWalks';
import { DoneRow } from './DoneRow';

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The drain round on a rig in the Bay, and what the water in it costs of its applications. */
export function BayWater({ setup, rig, log, onCheck }: BayWalk) {
  const { unit } = usePrefs();
  const drains = useMemo(
    () => rig.checks.filter(({ doing }) => doing.does === 'drain' || doing.does === 'damp'),
    [rig.checks],
  );
  const newest = (id: string) => log.done.find(({ checkId }) => checkId === id) ?? null;
  const waterMl = Object.fromEntries(
    drains.flatMap(({ id, doing }) => {
      const done = newest(id);
      if (doing.does !== 'drain' || done?.answer.kind !== 'grade') return [];
      const amount = amountOfGrade(done.answer.grade, false);
      if (amount === null) return [];
      const drained: Drained = {
        place: doing.place,
        amount,
        ml: null,
        what: [],
        stuck: false,
        atMs: 0,
      };
      const [from, to] = totalMl([drained]);
      return [[doing.place, Math.round((from + to) / 2)]];
    }),
  );
  const units = [setup.rig.unit, ...setup.rig.towed];
  return (
    <View style={{ gap: space.step }}>
      <Caution lines={['Look away from each drain: it throws out water, oil and grit.']} />
      <View role="list" aria-label="Drains">
        {drains.map((check) => (
          <DoneRow
            key={check.id}
            title={`${capital(check.title.replace(/^Drain the /, '').replace(/ and look$/, ''))}${units.length > 1 ? ` · ${units[check.unit]?.number ?? ''}` : ''}`}
            said={newest(check.id)?.said ?? null}
            does={check.doing.does === 'damp' ? 'Feel it' : 'Drain it'}
            onDo={() => onCheck(check)}
          />
        ))}
        <Rule />
      </View>
      <ApplicationsTable
        rig={setup.rig}
        waterMl={waterMl}
        unit={unit}
        school={setup.rig.unit.ports}
      />
    </View>
  );
}
