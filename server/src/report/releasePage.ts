import { clockAnswers, correctedMs, rigTitle, sayJobFact } from '@keen-bleed/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { JobOnPaper } from './jobOnPaper';
import { INK, pageFoot, QUIET, RULE, sayMoment } from './page';
import { printed } from './printer';

/** What a release page is made of. */
export interface ReleasePage extends JobOnPaper {
  shopName: string;
  timeZone: string;
}

/** A release on paper: what was found, proven, fitted and retested, by whom, with a line to sign and its digest. */
export const releasePage = (page: ReleasePage): Promise<Buffer> => printed(definition(page));

function definition(page: ReleasePage): TDocumentDefinitions {
  const { header, shopName, state, writers, by, timeZone, startedAtMs, facts, chain } = page;
  const [unit, ...towed] = header.made.units;
  const title = unit ? rigTitle({ unit, towed }) : '';
  const gauge = unit?.gauge.unit ?? 'psi';
  const answers = clockAnswers(facts);
  const told = state.told
    .filter(({ kind }) => kind !== 'ask-release')
    .map((fact): Content => {
      const { title: head, text } = sayJobFact(header, fact, gauge);
      const atMs = correctedMs(fact, answers.get(fact.lane));
      return {
        unbreakable: true,
        columns: [
          { width: 150, text: sayMoment(atMs, timeZone), color: QUIET, fontSize: 8.5 },
          {
            width: '*',
            stack: [
              { text: head, bold: true },
              ...(text === '' ? [] : [{ text }]),
              { text: writers[fact.lane] ?? '', color: QUIET, fontSize: 8.5 },
            ],
          },
        ],
        columnGap: 12,
        margin: [0, 0, 0, 7],
      };
    });
  return {
    pageSize: 'A4',
    pageMargins: [42, 44, 42, 54],
    info: { title: `Release, ${title}`, creator: 'Keen Bleed' },
    defaultStyle: { font: 'Text', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: pageFoot(chain),
    content: [
      { text: shopName, color: QUIET },
      { text: title, fontSize: 20, bold: true, margin: [0, 2, 0, 2] },
      {
        text: state.released
          ? `Released ${sayMoment(state.released.atServerMs, timeZone)} by ${writers[state.released.lane] ?? ''}`
          : 'Not released: this vehicle stays where it is.',
        bold: true,
        fontSize: 12,
        margin: [0, 0, 0, 8],
      },
      {
        text: `Found: ${header.made.found}. Opened by ${by}, ${sayMoment(startedAtMs, timeZone)}.`,
        margin: [0, 0, 0, 10],
      },
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 511, y2: 0, lineColor: RULE }] },
      { stack: told, margin: [0, 8, 0, 8] },
      proofs(page),
      readings(page),
      signature(),
      ...(state.released
        ? [
            {
              text: [
                'Digest of this record (SHA-256 chain over its entries): ',
                { text: state.released.digest, font: 'Numeral', fontSize: 7.5 },
              ],
              fontSize: 8.5,
              color: QUIET,
              margin: [0, 12, 0, 0] as [number, number, number, number],
            },
          ]
        : []),
    ],
  };
}

/** What was proved, by which record and source, and what was accepted by whom and why. */
function proofs({ state, writers, timeZone, facts }: ReleasePage): Content {
  if (state.owed.length === 0) return [];
  const answers = clockAnswers(facts);
  return {
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [110, '*', 130],
      body: [
        ['Retest', 'What proved it', 'By'].map((text) => ({ text, bold: true })),
        ...state.owed.map(({ title, done, stepId }) => {
          if (!done) return [title, 'Not tested since the work.', ''];
          const atMs = done.testedAtMs ?? correctedMs(done, answers.get(done.lane));
          const by = writers[done.lane] ?? '';
          return [
            title,
            {
              stack: [
                { text: done.said },
                ...(done.accepted === undefined
                  ? []
                  : [{ text: `Accepted by ${by}: ${done.accepted}`, bold: true }]),
              ],
            },
            `${stepId === null ? 'Check' : 'Run'} of ${sayMoment(atMs, timeZone)}${
              done.accepted === undefined ? `, ${by}` : ''
            }`,
          ];
        }),
      ],
    },
    layout: 'lightHorizontalLines',
    margin: [0, 0, 0, 12],
  };
}

function readings({ state }: ReleasePage): Content {
  const all = state.owed.flatMap(({ done, title }) =>
    (done?.readings ?? []).map((reading) => ({ ...reading, owed: title })),
  );
  if (all.length === 0) return [];
  const say = (value: number | null) => (value === null ? '' : String(Math.round(value * 10) / 10));
  return {
    table: {
      headerRows: 1,
      widths: ['*', 60, 60, 60, 50],
      body: [
        ['Retest', 'Before', 'After', 'Expected', ''].map((text) => ({ text, bold: true })),
        ...all.map(({ title, unit, before, after, expected }) => [
          title,
          say(before),
          say(after),
          say(expected),
          unit,
        ]),
      ],
    },
    layout: 'lightHorizontalLines',
    margin: [0, 0, 0, 12],
  };
}

const signature = (): Content => ({
  unbreakable: true,
  margin: [0, 26, 0, 0],
  columns: ['Released by', 'Name', 'Date'].map((text) => ({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 150, y2: 0, lineColor: INK }] },
      { text, color: QUIET, fontSize: 8.5, margin: [0, 3, 0, 0] },
    ],
  })),
});
