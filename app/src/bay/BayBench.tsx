import { valvesOf } from '@keen-bleed/core/checks';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Bench, Reading } from '../bench/useBench';
import { ValvePane } from '../bench/ValvePane';
import { space } from '../theme/space';
import { Pick } from '../ui/Pick';
import type { BayWalk } from './BayWalks';

/** The bench on a rig in the Bay: every reading of a valve is made by the twin. */
export function BayBench({ setup, rig, log, onCheck }: BayWalk) {
  const valves = useMemo(() => valvesOf(setup.rig, rig.checks), [rig.checks, setup.rig]);
  const units = [setup.rig.unit, ...setup.rig.towed];
  const titles = valves.map(({ title, unit }) => `${title} · ${units[unit]?.number ?? ''}`);
  const [chosen, setChosen] = useState<string | null>(null);
  const readings = useMemo(() => {
    const of = new Map<string, Reading[]>();
    log.done.forEach(({ checkId, answer }, n) => {
      // The newest stands first; the rig's own time is not told.
      of.set(checkId, [...(of.get(checkId) ?? []), { atMs: -n, answer }]);
    });
    return of;
  }, [log.done]);
  const bench: Bench = { valves, readings, ready: true };
  const at = Math.max(0, titles.indexOf(chosen ?? ''));
  const valve = valves[at];
  if (!valve) return null;
  return (
    <View style={{ gap: space.step }}>
      <Pick label="Valve" options={titles} value={titles[at]!} onChange={setChosen} />
      <ValvePane
        rig={setup.rig}
        units={units}
        bench={bench}
        valve={valve}
        mayWrite
        inBay
        onRead={onCheck}
      />
    </View>
  );
}
