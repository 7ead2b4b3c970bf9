import { fromPsi, readable, toPsi } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { asProblem } from '../wire/api';
import { sayTime } from '../data/when';
import { asTheShopHasIt } from '../store/asTheShopHasIt';
import { correctFact, dropFact } from '../store/logs';
import { sendNow, tryAgain } from '../store/outbox';
import { saveAsFile, takeOffDevice } from '../store/saveAsFile';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { sayFact, withWords, wordsOf } from './sayFact';
import { logTitle, type WaitingLog } from './waitingLog';

type Asked = 'correct' | 'drop' | 'off' | null;

interface RefusedLogProps {
  waiting: WaitingLog;
  onChanged: () => void;
}

/** A record the server would not take: why, and what can be done about it. */
export function RefusedLog({ waiting: { log, facts }, onChanged }: RefusedLogProps) {
  const [asked, setAsked] = useState<Asked>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { refused } = log;
  if (!refused) return null;
  const row = facts.find(({ id }) => id === refused.factId) ?? null;
  const isCorrectable = row !== null && (wordsOf(row.fact) !== null || row.fact.kind === 'mark');
  const isHeader = row === null && log.opened === 0;
  const does = (work: () => Promise<unknown>) => {
    setTrouble(null);
    work()
      .catch((error: unknown) => setTrouble(asProblem(error).message))
      .finally(onChanged);
  };
  return (
    <View style={{ gap: space.step, marginTop: space.gap }}>
      <Txt as="heading" heading={2}>
        {logTitle(log)}
      </Txt>
      <Notice
        manner="trouble"
        title={refused.message}
        text={`${row ? `${sayFact(row.fact, log.header)} is not taken. ` : ''}Tried at ${sayTime(refused.atMs)}; ${facts.length === 1 ? '1 entry waits' : `${facts.length} entries wait`}.`}
      />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        <Button title="Try again" manner="main" onPress={() => does(() => tryAgain(log.id))} />
        {isCorrectable ? <Button title="Correct it" onPress={() => setAsked('correct')} /> : null}
        {row ? <Button title="Drop it" manner="danger" onPress={() => setAsked('drop')} /> : null}
        {isHeader ? (
          <Button
            title="Use the shop’s units and rules"
            label="Use the units and the rule set as the shop has them now"
            onPress={() => does(() => asTheShopHasIt(log.id).then(() => tryAgain(log.id)))}
          />
        ) : null}
        <Button title="Save as a file" onPress={() => does(() => saveAsFile(log.id))} />
        {row ? null : (
          <Button title="Take it off this device" manner="danger" onPress={() => setAsked('off')} />
        )}
      </View>
      {asked === 'correct' && row ? (
        <CorrectSheet
          row={row}
          unit={log.header.kind === 'run' ? log.header.made.unit.gauge.unit : 'psi'}
          onLeave={() => setAsked(null)}
          onDone={(fact) => {
            setAsked(null);
            does(async () => {
              await correctFact(row.id, fact, refused.message);
              await sendNow();
            });
          }}
        />
      ) : null}
      {asked === 'drop' && row ? (
        <Sheet title="Drop this entry?" at="middle" onLeave={() => setAsked(null)}>
          <Txt>{`${sayFact(row.fact, log.header)} is left out of the record. It stays on this device and in the saved file, and nowhere else.`}</Txt>
          <Sure
            title="Drop it"
            onLeave={() => setAsked(null)}
            onSure={() => {
              setAsked(null);
              does(async () => {
                await dropFact(row.id, refused.message);
                await sendNow();
              });
            }}
          />
        </Sheet>
      ) : null}
      {asked === 'off' ? (
        <Sheet title="Take this record off the device?" at="middle" onLeave={() => setAsked(null)}>
          <Txt>It is saved as a file first. After that the file is the only place where it is.</Txt>
          <Sure
            title="Save, and take it off"
            onLeave={() => setAsked(null)}
            onSure={() => {
              setAsked(null);
              does(async () => {
                await takeOffDevice(log.id);
                await sendNow();
              });
            }}
          />
        </Sheet>
      ) : null}
    </View>
  );
}

function Sure({
  title,
  onSure,
  onLeave,
}: {
  title: string;
  onSure: () => void;
  onLeave: () => void;
}) {
  return (
    <View style={{ flexDirection: 'row', gap: space.step }}>
      <Button title="Back" style={{ flex: 1 }} onPress={onLeave} />
      <Button title={title} manner="danger" style={{ flex: 1 }} onPress={onSure} />
    </View>
  );
}

interface CorrectSheetProps {
  row: WaitingLog['facts'][number];
  unit: 'psi' | 'kPa' | 'bar';
  onDone: (fact: WaitingLog['facts'][number]['fact']) => void;
  onLeave: () => void;
}

/** The words or the reading of an entry, to be put right before it is sent again. */
function CorrectSheet({ row, unit, onDone, onLeave }: CorrectSheetProps) {
  const { fact } = row;
  const [text, setText] = useState(
    fact.kind === 'mark'
      ? String(Number(fromPsi(fact.readingPsi, unit).toFixed(2)))
      : readable(wordsOf(fact) ?? ''),
  );
  const [problem, setProblem] = useState<string>();
  const done = () => {
    const words = readable(text).trim();
    if (fact.kind === 'mark') {
      const reading = Number(words.replace(',', '.'));
      if (words === '' || !Number.isFinite(reading)) {
        setProblem(`Give the reading in ${unit}, such as ${unit === 'bar' ? '7.2' : '104'}.`);
        return;
      }
      onDone({ ...fact, id: uuidv7(), readingPsi: toPsi(reading, unit) });
      return;
    }
    if (words === '') setProblem('Write a word or two first.');
    else onDone(withWords(fact, words, uuidv7()));
  };
  return (
    <Sheet title="Correct it" at="foot" onLeave={onLeave}>
      <Field
        label={fact.kind === 'mark' ? 'Reading' : 'Words'}
        {...(fact.kind === 'mark' ? { hint: unit } : {})}
        numeric={fact.kind === 'mark'}
        value={text}
        onChange={setText}
        problem={problem}
        lines={fact.kind === 'mark' ? 1 : 3}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button
          title="Keep, and send"
          manner="main"
          size="glove"
          style={{ flex: 1 }}
          onPress={done}
        />
      </View>
    </Sheet>
  );
}
