import type { JobFact, JobHeader, PressureUnit } from '@keen-bleed/contract';
import { partTitle } from '../rig/partList';
import { sayPartNumber } from './match';
import { measureWords, repairWords } from './words';

/** A fact of a job in words: what was done, and what is to be read beneath it. */
export interface ToldFact {
  title: string;
  text: string;
}

const FIELDS = {
  number: 'number',
  thread: 'thread',
  setPsi: 'set to',
  variant: 'kind',
  chamberType: 'type',
  stroke: 'stroke',
  lengthMm: 'length',
} as const;

/** What is known of a part, in a line, such as `set to 4 psi, thread 3/8 NPT`. */
export function sayPartData(
  data: Readonly<Partial<Record<keyof typeof FIELDS, string | number | undefined>>>,
  unit: PressureUnit,
): string {
  return (Object.keys(FIELDS) as (keyof typeof FIELDS)[])
    .flatMap((field) => {
      const value = data[field];
      if (value === undefined) return [];
      const said = typeof value === 'number' ? sayPartNumber(field, value, unit) : value;
      return [`${FIELDS[field]} ${said}`];
    })
    .join(', ');
}

/** A fact of a job as its story tells it. */
export function sayJobFact(
  { made }: JobHeader,
  fact: JobFact,
  unit: PressureUnit = 'psi',
): ToldFact {
  const part = (at: { unitId: string; partId: string } | null): string => {
    const of = at && made.units.find(({ id }) => id === at.unitId);
    return (of && at && partTitle(of, at.partId)) ?? at?.partId ?? '';
  };
  const lines = (...texts: (string | undefined | false)[]) => texts.filter(Boolean).join('. ');
  switch (fact.kind) {
    case 'proven':
      return {
        title: `Proven: ${part(fact.at)}`,
        text: lines(
          fact.text,
          `By ${fact.by}`,
          fact.because !== undefined && `The earlier conclusion was wrong: ${fact.because}`,
        ),
      };
    case 'chosen':
      return {
        title: `${part(fact.at)} to be ${repairWords[fact.repair]}`,
        text: lines(
          fact.offered && sayPartData(fact.offered, unit),
          fact.adapter,
          fact.override !== undefined && `Does not match, fitted all the same: ${fact.override}`,
        ),
      };
    case 'refused':
      return {
        title: `Refused for ${part(fact.at).toLowerCase()}`,
        text: lines(sayPartData(fact.offered, unit), ...fact.problems),
      };
    case 'waiting':
      return {
        title: 'Waits for parts',
        text: lines(fact.text, fact.until && `until ${fact.until}`),
      };
    case 'fitted':
      return {
        title: `${part(fact.at)} ${repairWords[fact.repair]}`,
        text: lines(
          sayPartData(fact.was, unit) !== '' && `Was: ${sayPartData(fact.was, unit)}`,
          sayPartData(fact.now, unit) !== '' && `Now: ${sayPartData(fact.now, unit)}`,
          fact.orientation,
          fact.adapter,
          fact.note,
          fact.override !== undefined && `Does not match, fitted all the same: ${fact.override}`,
        ),
      };
    case 'retested':
      return {
        title: {
          pass: 'Retest passed',
          fail: 'Retest failed',
          'cant-tell': 'Retest could not be told',
        }[fact.verdict],
        text: lines(fact.said, fact.accepted !== undefined && `Taken as passed: ${fact.accepted}`),
      };
    case 'measure':
      return {
        title: `Temporary: ${measureWords[fact.measure].title}`,
        text: lines(part(fact.at), fact.text),
      };
    case 'undone':
      return { title: 'Temporary measure undone', text: fact.text ?? '' };
    case 'owner':
      return { title: `Given to ${fact.name}`, text: '' };
    case 'wanted-by':
      return { title: fact.day === null ? 'No day wanted by' : `Wanted by ${fact.day}`, text: '' };
    case 'note':
      return { title: 'Note', text: fact.text };
    case 'reopened':
      return { title: 'Reopened', text: fact.because };
    case 'ask-release':
      return { title: 'Release asked for', text: '' };
    case 'released':
      return { title: 'Released', text: '' };
    case 'close':
      return { title: 'Closed without repair', text: fact.because };
    default:
      return { title: '', text: '' };
  }
}
