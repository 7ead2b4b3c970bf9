import type { AnyFact, AnyHeader, JobFact } from '@keen-bleed/contract';
import { sayJobFact, sayPressure } from '@keen-bleed/core';

/** An entry of a log in a few words, for whoever has to decide about it. */
export function sayFact(fact: AnyFact, header: AnyHeader): string {
  const steps = header.kind === 'run' ? header.made.steps : [];
  const step =
    'stepId' in fact
      ? ` in “${steps.find(({ id }) => id === fact.stepId)?.title ?? fact.stepId}”`
      : '';
  if (header.kind === 'job') return sayJobFact(header, fact as JobFact).title;
  switch (fact.kind) {
    case 'mark': {
      const unit = header.kind === 'run' ? header.made.unit.gauge.unit : 'psi';
      return `The mark ${sayPressure(fact.readingPsi, unit)}${step}`;
    }
    case 'note':
      return `The note “${fact.text}”${step}`;
    case 'seen':
      return `What was seen: “${fact.text}”`;
    case 'skip':
      return `Leaving out${step}: “${fact.reason}”`;
    case 'stop':
      return `The stop that was measured${step}`;
    case 'look':
      return `What was found${step}`;
    case 'close':
      return 'The closing of it';
    case 'retract':
      return 'Taking something back';
    case 'clock':
      return 'The answer about the clock';
    case 'extend':
      return `More time${step}`;
    case 'hold-over':
      return `The end of the hold${step}`;
    case 'part':
      return `How “${fact.at.partId}” is`;
    case 'line':
      return `How the line “${fact.at.lineId}” runs`;
    case 'check':
      return `The check “${fact.title}”: ${fact.said}`;
    case 'complaint':
      return `What the driver says: “${fact.text}”`;
    case 'named':
      return `Naming the fault: ${fact.text}`;
    case 'ranked':
      return 'How the suspects stood';
    case 'mended':
      return `The mend: ${fact.text}`;
    case 'held':
      return `The hold: ${fact.text}`;
    case 'aside':
      return `What was seen on the way: “${fact.text}”`;
    case 'weather':
      return `The weather: ${fact.text}`;
    case 'take-over':
      return 'Taking the run over';
    case 'about':
      return 'Odometer and place';
    case 'ready':
      return `Being ready${step}`;
    default:
      return 'An entry';
  }
}

/** The words in an entry that can be put right before it is sent; null where there are none. */
export function wordsOf(fact: AnyFact): string | null {
  if (fact.kind === 'note' || fact.kind === 'seen') return fact.text;
  if (fact.kind === 'skip') return fact.reason;
  if (fact.kind === 'close' && 'reason' in fact) return fact.reason ?? null;
  if (fact.kind === 'close' && 'because' in fact) return fact.because;
  return null;
}

/** The same entry with other words. */
export function withWords(fact: AnyFact, words: string, id: string): AnyFact {
  if (fact.kind === 'note' || fact.kind === 'seen') return { ...fact, id, text: words };
  if (fact.kind === 'skip') return { ...fact, id, reason: words };
  if (fact.kind === 'close' && 'how' in fact) return { ...fact, id, reason: words };
  return fact;
}
