import type { JobFact, ProvenFact, Repair, Unit } from '@keen-bleed/contract';
import { partsOf, partTitle, readable, unitTitle, type NewFact } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { RepairChoice } from './RepairChoice';

/** What is taken to be at fault, before anything is asked. */
export interface Conclusion {
  unitId: string;
  partId: string;
  faultId?: string;
  text: string;
  by: string;
}

interface ProveSheetProps {
  units: readonly Unit[];
  begins: Conclusion | null;
  /** Checks that were made, in words, the newest first, each at its part. */
  made: readonly { partId: string; said: string }[];
  /** The conclusion that this one replaces. */
  replaces: ProvenFact | null;
  onDone: (facts: readonly NewFact<JobFact>[]) => void;
  onLeave: () => void;
}

const MOST = { text: 200, by: 300 } as const;

/** Which part it is, what is wrong with it, and which check proved it; and, where that is clear, how it will be mended. */
export function ProveSheet({ units, begins, made, replaces, onDone, onLeave }: ProveSheetProps) {
  const places = units.flatMap((unit) =>
    partsOf(unit).map(({ id }) => ({ unitId: unit.id, partId: id })),
  );
  const titleOf = ({ unitId, partId }: { unitId: string; partId: string }) => {
    const unit = units.find(({ id }) => id === unitId);
    const part = (unit && partTitle(unit, partId)) ?? partId;
    return units.length > 1 && unit ? `${part}, ${unitTitle(unit)}` : part;
  };
  const none = 'Pick the part';
  const titles = [none, ...places.map(titleOf)];
  const [where, setWhere] = useState(begins ? titleOf(begins) : none);
  const [text, setText] = useState(begins?.text ?? '');
  const [by, setBy] = useState(begins?.by ?? '');
  const [because, setBecause] = useState('');
  const [repair, setRepair] = useState<Repair | null>(null);
  const [problem, setProblem] = useState<{
    where?: string;
    text?: string;
    by?: string;
    because?: string;
  }>({});
  const at = places[titles.indexOf(where) - 1] ?? null;
  const isSame = begins !== null && at?.partId === begins.partId && at.unitId === begins.unitId;
  const checks = made.filter(({ partId }) => partId === at?.partId).slice(0, 3);

  const done = () => {
    const words = readable(text).trim();
    const proof = readable(by).trim();
    const reason = readable(because).trim();
    const wrong = {
      ...(at ? {} : { where: 'Pick the part that is at fault.' }),
      ...(words === '' ? { text: 'Say what is wrong with it.' } : {}),
      ...(words.length > MOST.text ? { text: `At most ${MOST.text} characters.` } : {}),
      ...(proof === '' ? { by: 'Say which check proved it, and what it gave.' } : {}),
      ...(proof.length > MOST.by ? { by: `At most ${MOST.by} characters.` } : {}),
      ...(replaces && reason === ''
        ? { because: 'Say why the earlier conclusion was wrong.' }
        : {}),
    };
    setProblem(wrong);
    if (!at || Object.keys(wrong).length > 0) return;
    const faultId = isSame ? begins.faultId : undefined;
    onDone([
      {
        kind: 'proven',
        at,
        text: words,
        by: proof,
        ...(faultId === undefined ? {} : { faultId }),
        ...(replaces ? { supersedes: replaces.id, because: reason.slice(0, MOST.by) } : {}),
      },
      ...(repair === null ? [] : [{ kind: 'chosen', at, repair } as const]),
    ]);
  };

  return (
    <Sheet title={replaces ? 'It is something else' : 'What is it?'} at="foot" onLeave={onLeave}>
      <View>
        <View style={{ flexDirection: 'row' }}>
          <Pick label="Part" options={titles} value={where} onChange={setWhere} />
        </View>
        {problem.where ? (
          <Txt as="small" tone="fail" live="polite">
            {problem.where}
          </Txt>
        ) : null}
      </View>
      <Field label="What is wrong with it" value={text} onChange={setText} problem={problem.text} />
      <Field
        label="Which check proved it"
        value={by}
        onChange={setBy}
        problem={problem.by}
        lines={2}
      />
      {checks.length > 0 ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
          {checks.map(({ said }) => (
            <Button key={said} title={said} onPress={() => setBy(said)} />
          ))}
        </View>
      ) : null}
      {replaces ? (
        <Field
          label="Why the earlier conclusion was wrong"
          value={because}
          onChange={setBecause}
          problem={problem.because}
          lines={2}
        />
      ) : null}
      <RepairChoice label="It will be (if that is clear)" value={repair} onChange={setRepair} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
