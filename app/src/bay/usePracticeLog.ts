import type { CheckFact, VisitFact, VisitHeader } from '@keen-bleed/contract';
import {
  CORE_VERSION,
  FoldedLog,
  rigTitle,
  VISIT_VERSION,
  visitKind,
  type NewFact,
  type VisitState,
} from '@keen-bleed/core';
import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import { useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { useMe } from '../account/session';
import { sayAnswer } from '../plan/sayAnswer';
import { keepPractice } from '../practice/practiceVisits';
import { usePrefs } from '../prefs/prefs';
import { stamped } from '../store/recordFact';
import type { BaySetup } from './bayProtocol';

/** What was done on a rig in the Bay, kept as a visit under Practice. */
export interface PracticeLog {
  done: readonly {
    id: string;
    title: string;
    said: string;
    checkId: string;
    answer: CheckAnswer;
  }[];
  add: (check: Check, answer: CheckAnswer) => void;
  end: (ending: string) => void;
}

type Log = FoldedLog<VisitHeader, VisitFact, VisitState>;

/** Starts with the first check, and is never sent. */
export function usePracticeLog({ rig }: BaySetup): PracticeLog {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const log = useRef<Log | null>(null);
  const [done, setDone] = useState<PracticeLog['done']>([]);
  const title = rigTitle(rig);
  const keep = (ending: string | null) => {
    if (log.current)
      keepPractice({
        header: log.current.header,
        personId: me.personId,
        title,
        facts: log.current.facts,
        ending,
      });
  };
  return {
    done,
    add: (check, answer) => {
      const units = [rig.unit, ...rig.towed];
      const header: VisitHeader = {
        id: uuidv7(),
        kind: 'visit',
        v: VISIT_VERSION,
        subject: { unitId: rig.unit.id, rigId: null, partId: null },
        startedAtMs: Date.now(),
        offsetMs: null,
        coreVersion: CORE_VERSION,
        made: { units, reason: 'Practice' },
      };
      const kept = (log.current ??= new FoldedLog(visitKind, header));
      const said = sayAnswer(answer, check.answer, sayIn);
      const fact: NewFact<CheckFact> = {
        kind: 'check',
        at: { unitId: units[check.unit]?.id ?? rig.unit.id, partId: check.part },
        checkId: check.id,
        title: check.title,
        answer: answer as CheckFact['answer'],
        said,
      };
      const writing = { log: kept as never, lane: kept.header.id };
      const made = stamped(writing, fact, Date.now(), 0) as unknown as VisitFact;
      kept.add(made);
      setDone((before) => [
        { id: made.id, title: check.title, said, checkId: check.id, answer },
        ...before,
      ]);
      keep(null);
    },
    end: keep,
  };
}
