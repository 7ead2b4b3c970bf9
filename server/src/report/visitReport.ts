import type { ChainStanding, PressureUnit, VisitFact, VisitHeader } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  entryTitles,
  entryWords,
  partOfEntry,
  photosOf,
  partTitle,
  plumbingOf,
  rigTitle,
  sayPressure,
  unitTitle,
  type VisitEntry,
  type VisitState,
} from '@keen-bleed/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { INK, NOT_DRAWN, pageFoot, QUIET, RULE, sayMoment } from './page';
import { printed } from './printer';

/** What a visit's report is made of. */
export interface ReportedVisit {
  shopName: string;
  timeZone: string;
  header: VisitHeader;
  facts: readonly VisitFact[];
  state: VisitState;
  by: string;
  /** Who wrote in each lane, by name. */
  writers: Readonly<Record<string, string>>;
  startedAtMs: number;
  chain: ChainStanding;
  /** Photos by id, as data of the page. */
  photos: ReadonlyMap<string, string>;
}

const STANDINGS = { good: 'Good', noted: 'Noted', bad: 'Not right' } as const;
const FITTED = { fitted: 'fitted', 'not-fitted': 'not fitted', 'not-known': 'not known' } as const;
/** A photo on paper, points. */
const PHOTO = 150;

/** A visit on paper: what was noted, seen, checked and found of parts, with photos, and by whom. */
export const visitReport = (visit: ReportedVisit): Promise<Buffer> => printed(definition(visit));

function definition(visit: ReportedVisit): TDocumentDefinitions {
  const { header, shopName, state, timeZone } = visit;
  const [unit, ...towed] = header.made.units;
  const title = unit ? rigTitle({ unit, towed }) : 'Visit';
  return {
    pageSize: 'A4',
    pageMargins: [42, 44, 42, 54],
    info: { title: `Visit, ${title}`, creator: 'Keen Bleed' },
    defaultStyle: { font: 'Text', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: pageFoot(visit.chain),
    content: [
      { text: shopName, color: QUIET },
      { text: title, fontSize: 20, bold: true, margin: [0, 2, 0, 6] },
      {
        text: [
          `Visit of ${sayMoment(visit.startedAtMs, timeZone)}, opened by ${visit.by}`,
          header.made.reason ? `. ${header.made.reason}` : '',
          state.closed ? '' : '. Still open.',
        ],
        margin: [0, 0, 0, 10],
      },
      ...state.entries.map((entry) => entryOf(visit, entry)),
      ...partsOf(visit),
      ...problemsOf(visit),
    ],
  };
}

const where = ({ header }: ReportedVisit, at: ReturnType<typeof partOfEntry>): string => {
  const unit = header.made.units.find(({ id }) => id === at?.unitId);
  if (!at || !unit) return '';
  const part = partTitle(unit, at.partId) ?? at.partId;
  return header.made.units.length > 1 ? `${part}, ${unitTitle(unit)}` : part;
};

function entryOf(visit: ReportedVisit, entry: VisitEntry): Content {
  const { facts, writers, timeZone } = visit;
  const at = correctedMs(entry, clockAnswers(facts).get(entry.lane));
  const head = [
    where(visit, partOfEntry(entry)),
    entry.kind === 'check'
      ? entry.title
      : entry.kind === 'seen'
        ? STANDINGS[entry.standing]
        : entryTitles[entry.kind],
  ];
  return {
    unbreakable: true,
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 511, y2: 0, lineColor: RULE }] },
      { text: head.filter(Boolean).join(' · '), bold: true, margin: [0, 4, 0, 0] },
      {
        text: entryWords(entry),
      },
      {
        text: `${writers[entry.lane] ?? ''}, ${sayMoment(at, timeZone)}`,
        color: QUIET,
        fontSize: 8.5,
      },
      printedPhotos(visit, photosOf(entry)),
    ],
    margin: [0, 0, 0, 8],
  };
}

const printedPhotos = ({ photos }: ReportedVisit, ids: readonly string[]): Content => ({
  columns: ids.map((id) => {
    const image = photos.get(id);
    return image
      ? { image, fit: [PHOTO, PHOTO] as [number, number], width: PHOTO }
      : { text: NOT_DRAWN, width: PHOTO, color: QUIET, fontSize: 8.5 };
  }),
  columnGap: 8,
  margin: [0, ids.length > 0 ? 4 : 0, 0, 0],
});

function partsOf(visit: ReportedVisit): Content[] {
  const { state, header } = visit;
  if (state.parts.length === 0) return [];
  const gauge: PressureUnit = header.made.units[0]?.gauge.unit ?? 'psi';
  return [
    { text: 'Parts', fontSize: 13, bold: true, margin: [0, 8, 0, 4] },
    ...state.parts.map((fact): Content => ({
      unbreakable: true,
      stack: [
        {
          text: [
            { text: `${where(visit, fact.at)}: `, bold: true },
            [
              FITTED[fact.standing],
              fact.number,
              fact.thread,
              fact.setPsi === undefined ? null : `set to ${sayPressure(fact.setPsi, gauge)}`,
              fact.fittedOn ? `fitted on ${fact.fittedOn}` : null,
              fact.note,
            ]
              .filter(Boolean)
              .join(', '),
          ],
        },
        printedPhotos(visit, fact.photos ?? []),
      ],
      margin: [0, 0, 0, 3],
    })),
  ];
}

/** What parts and lines, as they were at the start, cannot be. */
function problemsOf({ header }: ReportedVisit): Content[] {
  const problems = header.made.units.flatMap((unit) => plumbingOf(unit).problems);
  if (problems.length === 0) return [];
  return [
    {
      text: 'Lines and parts that cannot be as they were said',
      fontSize: 13,
      bold: true,
      margin: [0, 8, 0, 4],
    },
    { ul: problems.map(({ text }) => text) },
  ];
}
