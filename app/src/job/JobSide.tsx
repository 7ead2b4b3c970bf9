import { readable } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { usePeople } from '../data/useRecords';
import { sayDay } from '../data/when';
import { WriteSheet } from '../run/step/WriteSheet';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import type { Tell } from './JobScreen';
import type { LiveJob } from './useJob';

const NOBODY = 'Nobody yet';

/** Whose job it is, by when it is wanted, and a note. */
export function JobSide({ job, tell }: { job: LiveJob; tell: Tell | null }) {
  const me = useMe();
  const { state } = job;
  const people = usePeople();
  const [sheet, setSheet] = useState<'note' | 'day' | 'close' | null>(null);
  const isOpen = state.closed === null;
  const active = (people.data ?? []).filter(({ active: is, role }) => is && role !== 'viewer');
  const names = [NOBODY, ...active.map(({ name }) => name)];
  const owner = state.owner?.name ?? NOBODY;
  const give = (name: string) => {
    const person = active.find((each) => each.name === name);
    if (person) void tell?.({ kind: 'owner', personId: person.id, name: person.name });
  };
  return (
    <View style={{ gap: space.step }}>
      {tell && isOpen ? (
        <>
          <View style={{ flexDirection: 'row' }}>
            <Pick
              label="Whose job"
              options={names.includes(owner) ? names : [...names, owner]}
              value={owner}
              onChange={give}
            />
          </View>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.step }}>
            <Txt style={{ flex: 1 }}>
              {state.wantedBy
                ? `Wanted by ${sayDay(Date.parse(`${state.wantedBy}T12:00:00`))}`
                : 'No day wanted by'}
            </Txt>
            <Button
              title="Change"
              label="Change the day it is wanted by"
              onPress={() => setSheet('day')}
            />
          </View>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
            <Button title="Add a note" onPress={() => setSheet('note')} />
            {me.role === 'lead' ? (
              <Button
                title="Close without repair"
                manner="danger"
                onPress={() => setSheet('close')}
              />
            ) : null}
          </View>
        </>
      ) : (
        <Txt tone="quiet">
          {state.owner ? `The job of ${state.owner.name}` : 'Nobody’s job yet'}
        </Txt>
      )}
      {sheet === 'note' ? (
        <WriteSheet
          title="A note on the job"
          label="Note"
          doTitle="Add it"
          most={500}
          onDone={(text) => {
            setSheet(null);
            void tell?.({ kind: 'note', text: readable(text) });
          }}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet === 'close' ? (
        <WriteSheet
          title="Close without repair"
          label="Why nothing is mended"
          doTitle="Close it"
          most={300}
          onDone={(because) => {
            setSheet(null);
            void tell?.({ kind: 'close', because: readable(because) });
          }}
          onLeave={() => setSheet(null)}
        />
      ) : null}
      {sheet === 'day' ? (
        <DaySheet
          day={state.wantedBy}
          onDone={(day) => {
            setSheet(null);
            void tell?.({ kind: 'wanted-by', day });
          }}
          onLeave={() => setSheet(null)}
        />
      ) : null}
    </View>
  );
}

interface DaySheetProps {
  day: string | null;
  onDone: (day: string | null) => void;
  onLeave: () => void;
}

function DaySheet({ day, onDone, onLeave }: DaySheetProps) {
  const [text, setText] = useState(day ?? '');
  const [problem, setProblem] = useState<string>();
  const inDays = (days: number) =>
    new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const done = () => {
    const said = text.trim();
    if (said === '') return onDone(null);
    const isDay =
      /^\d{4}-\d{2}-\d{2}$/.test(said) && !Number.isNaN(Date.parse(`${said}T00:00:00Z`));
    if (!isDay) return setProblem('Give it as year-month-day, such as 2026-11-30.');
    onDone(said);
  };
  return (
    <Sheet title="Wanted by" at="foot" onLeave={onLeave}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        <Button title="Today" size="glove" onPress={() => onDone(inDays(0))} />
        <Button title="Tomorrow" size="glove" onPress={() => onDone(inDays(1))} />
        <Button title="In a week" size="glove" onPress={() => onDone(inDays(7))} />
      </View>
      <Field label="Day" hint="empty for none" value={text} onChange={setText} problem={problem} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
