import type { RunFact } from '@keen-bleed/contract';
import {
  clockAnswers,
  isTimeDoubted,
  CLOCK_SAID_FROM_MS,
  sayClockAhead,
  unsureLanes,
  type NewFact,
} from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { sayDay, sayTime } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { deviceMs, measuredClock } from '../wire/serverClock';

interface ClockAskProps {
  facts: readonly RunFact[];
  /** Null for whoever may not answer. */
  onAnswer: ((fact: NewFact<RunFact>) => Promise<string | null>) | null;
}

/** `2026-11-24 14:05`, in the device's own zone. */
const GIVEN = /^(\d{4})-(\d{1,2})-(\d{1,2})[ T]+(\d{1,2}):(\d{2})$/;

/** A date and time as somebody typed it, ms; null where it is none. */
export function readMomentOf(text: string): number | null {
  const found = GIVEN.exec(text.trim());
  if (!found) return null;
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0] = found.slice(1).map(Number);
  const at = new Date(year, month - 1, day, hour, minute);
  const isReal = at.getMonth() === month - 1 && at.getDate() === day && at.getHours() === hour;
  return isReal ? at.getTime() : null;
}

/** What is said of the clocks a record was made by; asks where nobody knows how far one was off. */
export function ClockAsk({ facts, onAnswer }: ClockAskProps) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const [lane] = unsureLanes(facts);
  if (isTimeDoubted(facts)) {
    return (
      <Notice
        manner="trouble"
        title="Wrong clock: its times do not fit when it came in"
        text="It is kept, and its failures count. What passed closes no failure: test again."
      />
    );
  }
  if (lane === undefined) return <ClockWords facts={facts} />;
  const first = facts.find((fact) => fact.lane === lane);
  if (!first) return null;
  const said = `${sayDay(first.atMs)}, ${sayTime(first.atMs)}`;
  const answer = async () => {
    const atMs = readMomentOf(text);
    if (atMs === null)
      return setProblem('Give it as year-month-day hour:minute, such as 2026-11-24 14:05.');
    // By the server's clock: a device that is a day behind takes this very minute for tomorrow.
    const nowMs = deviceMs() - (measuredClock().aheadMs ?? 0);
    if (atMs > nowMs + 60_000) return setProblem('That is still to come: when was it really?');
    const wrong = await onAnswer?.({ kind: 'clock', ofLane: lane, aheadMs: first.atMs - atMs });
    setProblem(wrong ?? undefined);
  };
  return (
    <View style={{ gap: space.near }}>
      <Notice
        manner="trouble"
        title="The clock of the device was changed after this was begun"
        text={`By that clock it began ${said}. Until somebody says when it really was, a failure in it counts as the newest.`}
      />
      {onAnswer ? (
        <View style={{ gap: space.near, maxWidth: 420 }}>
          <Field
            label="When did it really begin?"
            hint="such as 2026-11-24 14:05"
            value={text}
            onChange={setText}
            problem={problem}
            onSubmit={() => void answer()}
          />
          <Button
            title="That is when it began"
            onPress={() => void answer()}
            style={{ alignSelf: 'flex-start' }}
          />
        </View>
      ) : null}
    </View>
  );
}

/** How far the clock was off, where that is worth saying. */
function ClockWords({ facts }: { facts: readonly RunFact[] }) {
  const answers = clockAnswers(facts);
  const worst = facts.reduce((most, fact) => {
    const ahead = fact.offsetMs ?? answers.get(fact.lane) ?? 0;
    return Math.abs(ahead) > Math.abs(most) ? ahead : most;
  }, 0);
  if (Math.abs(worst) < CLOCK_SAID_FROM_MS) return null;
  return (
    <Txt as="small" tone="quiet">
      {`The device’s clock was ${sayClockAhead(worst)}; times here are by the server’s.`}
    </Txt>
  );
}
