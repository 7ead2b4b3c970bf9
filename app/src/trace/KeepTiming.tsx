import type { Unit } from '@keen-bleed/contract';
import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import type { BrakeMove } from '@keen-bleed/core/trace';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useChecks } from '../air/useChecks';
import { useWalkRound } from '../parts/useWalkRound';
import { useRigOf } from '../plan/useRigOf';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';

interface KeepTimingProps {
  unitId: string;
  move: BrakeMove;
  fileName: string;
  onLeave: () => void;
}

const COVERAGE = 1.96;

/** Keeps a timed stamp on the pedal for the chamber it was recorded at. */
export function KeepTiming({ unitId, ...rest }: KeepTimingProps) {
  const { units, rigId } = useRigOf(unitId);
  if (!units) return <Waiting rows={2} />;
  return <Keeping units={units} rigId={rigId} {...rest} />;
}

function Keeping({
  units,
  rigId,
  move,
  fileName,
  onLeave,
}: Omit<KeepTimingProps, 'unitId'> & { units: readonly Unit[]; rigId: string | null }) {
  const me = useMe();
  const walk = useWalkRound(units, rigId, 'Bench');
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = units;
    return { unit: unit!, towed };
  }, [units]);
  const pedal = move.way === 'apply' ? 'down' : 'up';
  const checks = useChecks(rig).filter(
    ({ doing }) => doing.does === 'time' && doing.pedal === pedal,
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const said = `${move.seconds.toFixed(2)} ± ${Math.max(0.01, COVERAGE * move.deviation).toFixed(2)} s`;
  const keep = async () => {
    const check = checks.find(({ id }) => id === chosen);
    if (!check) return setProblem('Say where it was recorded.');
    const isKept = await walk.say({
      kind: 'check',
      at: { unitId: units[check.unit]?.id ?? rig.unit.id, partId: check.part },
      checkId: check.id,
      title: check.title,
      answer: { kind: 'number', value: Math.round(1_000 * move.seconds) / 1_000 },
      said,
      note: `timed from ${fileName}`.slice(0, 200),
    });
    if (isKept) router.push(`/unit/${rig.unit.id}/bench?valve=${check.unit}.${check.part}`);
  };
  if (me.role === 'viewer') return null;
  return (
    <Sheet title={`Keep ${said}`} at="foot" onLeave={onLeave}>
      <Txt tone="quiet">{rigTitle(rig)}</Txt>
      <Choice
        label="Recorded at"
        options={checks.map(({ id, title, unit }) => ({
          value: id,
          title: `${title.replace(/^Time the (.*) (on|off)$/, '$1')}${units.length > 1 ? ` · ${units[unit]?.number ?? ''}` : ''}`,
        }))}
        value={chosen ?? ''}
        onChange={(next) => {
          setChosen(next);
          setProblem(null);
        }}
      />
      {(problem ?? walk.trouble) ? <Txt tone="fail">{problem ?? walk.trouble}</Txt> : null}
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button
          title="Keep"
          manner="main"
          size="glove"
          style={{ flex: 1 }}
          onPress={() => void keep()}
        />
      </View>
    </Sheet>
  );
}
