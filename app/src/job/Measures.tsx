import type { JobFact, MeasureKind, Unit } from '@keen-bleed/contract';
import {
  measureWords,
  partsOf,
  partTitle,
  readable,
  unitTitle,
  type MeasureTaken,
  type NewFact,
} from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { sayAgo } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Rule } from '../ui/Rule';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';

interface MeasuresProps {
  measures: readonly MeasureTaken[];
  nowMs: number;
  onUndo: ((measureId: string) => void) | null;
}

/** What was done for a while and is not undone, ruled heavily; a vehicle does not leave with one. */
export function Measures({ measures, nowMs, onUndo }: MeasuresProps) {
  const open = measures.filter(({ undone }) => undone === null);
  if (open.length === 0) return null;
  return (
    <View role="list" aria-label="Temporary measures">
      {open.map(({ measure }) => {
        const { title, undo } = measureWords[measure.measure];
        return (
          <View key={measure.id} role="listitem">
            <Rule heavy />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{`${title}: ${measure.text}`}</Txt>
                <Txt as="small">{`${undo}. Since ${sayAgo(measure.atMs, nowMs)}.`}</Txt>
              </View>
              {onUndo ? (
                <Button
                  title="Undone"
                  label={`Undone: ${title}, ${measure.text}`}
                  onPress={() => onUndo(measure.id)}
                />
              ) : null}
            </View>
          </View>
        );
      })}
      <Rule heavy />
    </View>
  );
}

interface MeasureSheetProps {
  units: readonly Unit[];
  onDone: (fact: NewFact<JobFact>) => void;
  onLeave: () => void;
}

/** Says what is done for a while, where, and why. */
export function MeasureSheet({ units, onDone, onLeave }: MeasureSheetProps) {
  const [kind, setKind] = useState<MeasureKind | null>(null);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const places = units.flatMap((unit) =>
    partsOf(unit).map(({ id }) => ({ unitId: unit.id, partId: id })),
  );
  const whole = 'Not at one part';
  const titles = [
    whole,
    ...places.map(({ unitId, partId }) => {
      const unit = units.find(({ id }) => id === unitId);
      const part = (unit && partTitle(unit, partId)) ?? partId;
      return units.length > 1 && unit ? `${part}, ${unitTitle(unit)}` : part;
    }),
  ];
  const [where, setWhere] = useState(whole);
  const done = () => {
    const words = readable(text).trim();
    if (kind === null) return setProblem('Say what is done.');
    if (words === '') return setProblem('Say where, and why.');
    if (words.length > 200) return setProblem('At most 200 characters.');
    onDone({
      kind: 'measure',
      measure: kind,
      at: places[titles.indexOf(where) - 1] ?? null,
      text: words,
    });
  };
  return (
    <Sheet title="A temporary measure" at="foot" onLeave={onLeave}>
      <Txt>It holds the vehicle until it is undone and tested again.</Txt>
      <Choice
        label="What is done"
        options={(Object.keys(measureWords) as MeasureKind[]).map((each) => ({
          value: each,
          title: measureWords[each].title,
        }))}
        value={kind ?? ('' as MeasureKind)}
        onChange={setKind}
        size="glove"
      />
      <View style={{ flexDirection: 'row' }}>
        <Pick label="Part" options={titles} value={where} onChange={setWhere} />
      </View>
      <Field label="Where, and why" value={text} onChange={setText} problem={problem} lines={2} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
