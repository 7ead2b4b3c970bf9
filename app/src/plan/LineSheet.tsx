import type { LineRecord, Unit } from '@keen-bleed/contract';
import { plumbingOf, portsOf, type PlumbedLine, type PortAt } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { standingWords } from '../parts/sayPart';

/** What is said of a line. */
export type LineSaid = Omit<LineRecord, 'lineId' | 'foundAtMs' | 'colour' | 'moves'>;

interface LineSheetProps {
  unit: Unit;
  line: PlumbedLine;
  onDone: (said: LineSaid) => void;
  onLeave: () => void;
}

/** Where a line's ends are, and how wide it is. A wrong port is kept as it was found: the rig is as it is. */
export function LineSheet({ unit, line, onDone, onLeave }: LineSheetProps) {
  const { parts } = plumbingOf(unit);
  const record = unit.lines?.find(({ lineId }) => lineId === line.id);
  const [standing, setStanding] = useState<LineRecord['standing']>(record?.standing ?? 'fitted');
  const [bore, setBore] = useState(record?.boreMm === undefined ? '' : String(record.boreMm));
  const [note, setNote] = useState(record?.note ?? '');
  const [problem, setProblem] = useState<string>();
  const ends = parts.flatMap((part) =>
    portsOf(part.role).map((port) => ({
      at: { part: part.id, port: port.id },
      title: `${part.title}: ${unit.ports === 'numbers' && port.number ? `${port.number} ` : ''}${port.title.toLowerCase()}`,
    })),
  );
  const titleOf = ({ part, port }: PortAt) =>
    ends.find(({ at }) => at.part === part && at.port === port)?.title ?? `${part}: ${port}`;
  const [from, setFrom] = useState(titleOf(line.from));
  const [to, setTo] = useState(titleOf(line.to));
  const portAt = (title: string) => {
    const at = ends.find((end) => end.title === title)?.at;
    return at ? { partId: at.part, port: at.port } : undefined;
  };
  const done = () => {
    const mm = Number(bore.trim().replace(',', '.'));
    if (bore.trim() !== '' && !(mm >= 2 && mm <= 30)) {
      return setProblem('Give the inside bore in millimetres, from 2 to 30.');
    }
    const [start, end] = [portAt(from), portAt(to)];
    onDone({
      standing,
      ...(start ? { from: start } : {}),
      ...(end ? { to: end } : {}),
      ...(bore.trim() === '' ? {} : { boreMm: mm }),
      ...(note.trim() === '' ? {} : { note: note.trim().slice(0, 200) }),
    });
  };
  return (
    <Sheet title={`Line: ${line.title}`} at="foot" onLeave={onLeave}>
      <Choice
        label="Whether it is fitted"
        options={(['fitted', 'not-fitted', 'not-known'] as const).map((value) => ({
          value,
          title: standingWords[value],
        }))}
        value={standing}
        onChange={setStanding}
      />
      <View style={{ gap: space.near }}>
        <Txt tone="quiet">
          Follow it by hand from one end to the other before saying that it goes elsewhere.
        </Txt>
        <View style={{ flexDirection: 'row' }}>
          <Pick
            label="From"
            options={ends.map(({ title }) => title)}
            value={from}
            onChange={setFrom}
          />
        </View>
        <View style={{ flexDirection: 'row' }}>
          <Pick label="To" options={ends.map(({ title }) => title)} value={to} onChange={setTo} />
        </View>
      </View>
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Field
            label="Inside bore"
            hint="mm, where measured"
            value={bore}
            onChange={setBore}
            problem={problem}
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Field label="Note" value={note} onChange={setNote} />
        </View>
      </View>
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
