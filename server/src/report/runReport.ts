import type {
  ChainStanding,
  Figure,
  OpenFailure,
  Outcome,
  PressureUnit,
  RunFact,
  RunHeader,
  Unit,
  Verdict,
} from '@keen-bleed/contract';
import {
  CLOCK_SAID_FROM_MS,
  clockAnswers,
  correctedMs,
  figureTitles,
  figureUnitIn,
  headVerdict,
  sayHeadNumber,
  sayOtherView,
  gaugeWord,
  ladderMarks,
  rigTitle,
  sayClockAhead,
  sayFailure,
  sayFigure,
  sayLimit,
  sayOdometer,
  sayPressure,
  sayStep,
  unitsOf,
  verdictWords,
  windowsOf,
  type LiveMark,
  type RunState,
} from '@keen-bleed/core';
import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { ladderSvg } from './ladderSvg';
import { INK, pageFoot, QUIET, RULE, sayMoment } from './page';
import { printed } from './printer';

/** What a report is made of. */
export interface ReportedRun {
  shopName: string;
  /** IANA name of the zone its times are said in. */
  timeZone: string;
  /** What is open on its units now, whichever run it failed in. */
  standing: readonly OpenFailure[];
  header: RunHeader;
  /** In their order. */
  facts: readonly RunFact[];
  by: string;
  /** By the server's clock, as far as the device's offset is known. */
  startedAtMs: number;
  closedAtMs: number | null;
  timeUnsure: boolean;
  chain: ChainStanding;
  state: RunState;
  outcome: Outcome;
}

const LADDER_HEIGHT = 560;

const verdictShapes: Readonly<Record<Verdict, string>> = {
  pass: `<rect x="1" y="1" width="14" height="14" fill="${INK}"/>`,
  fail: `<path d="M1 1h14l-5 7 5 7H1z" fill="${INK}"/>`,
  'cant-tell': `<path d="M8 1.2 14.8 8 8 14.8 1.2 8z" fill="none" stroke="${INK}" stroke-width="2" stroke-dasharray="3.4 2.4"/>`,
  incomplete: `<path d="M10 2H2v12h12v-5" fill="none" stroke="${INK}" stroke-width="2"/>`,
};

const sign = (verdict: Verdict, size: number): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 16 16">${verdictShapes[verdict]}</svg>`;

/** A sign in a column that leaves room after it: a picture alone is stretched to its column. */
const signColumn = (verdict: Verdict, size: number, width: number): Column => ({
  width,
  stack: [{ svg: sign(verdict, size), width: size, margin: [0, 2, 0, 0] }],
});

/** A run on paper: rig, rule set, conditions, every figure with its limit and verdict, the ladder, and who. */
export async function runReport(run: ReportedRun): Promise<Buffer> {
  return printed(definition(run));
}

function definition(run: ReportedRun): TDocumentDefinitions {
  const { header, outcome, shopName } = run;
  const title = rigTitle(header.made);
  return {
    pageSize: 'A4',
    pageMargins: [42, 44, 42, 54],
    info: { title: `Brake test, ${title}`, creator: 'Keen Bleed' },
    defaultStyle: { font: 'Text', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: pageFoot(run.chain),
    content: [
      { text: shopName, color: QUIET },
      { text: title, fontSize: 20, bold: true, margin: [0, 2, 0, 6] },
      {
        columns: [
          signColumn(outcome.verdict, 14, 22),
          { text: verdictWords[outcome.verdict], bold: true, fontSize: 14, width: 'auto' },
          { text: outcome.headline, fontSize: 11, margin: [12, 2, 0, 0] },
        ],
        margin: [0, 0, 0, 10],
      },
      conditions(run),
      standing(run),
      {
        columns: [
          { width: 168, stack: [ladder(run)] },
          { width: '*', stack: [figures(run), findings(run), rest(run)] },
        ],
        margin: [0, 12, 0, 0],
      },
      marks(run),
      signature(run),
    ],
  };
}

function conditions(run: ReportedRun): Content {
  const { header, by, startedAtMs, closedAtMs, state, timeZone } = run;
  const { unit, ruleSet } = header.made;
  const lines: [string, string][] = [
    ['Started', sayMoment(startedAtMs, timeZone)],
    ['Closed', closedAtMs === null ? 'still open' : sayMoment(closedAtMs, timeZone)],
    ['By', by],
    ['Rule set', `${ruleSet.title}, revision ${ruleSet.revision}`],
    [
      'Gauge',
      `${state.gauge ? gaugeWord(state.gauge, ruleSet.school) : 'not chosen'}, divisions of ${unit.gauge.division} ${unit.gauge.unit}`,
    ],
    ...unitsOf(header.made).flatMap(vehicleLines),
    ...aboutLines(state),
    ['Secured by', ruleSet.switches.heldBy === 'chocks' ? 'chocks' : 'low gear'],
    ...clockLines(run),
  ];
  return {
    columnGap: 16,
    columns: [
      lines.slice(0, Math.ceil(lines.length / 2)),
      lines.slice(Math.ceil(lines.length / 2)),
    ].map((half) => ({
      stack: half.map(([name, value]) => ({
        text: [{ text: `${name}  `, color: QUIET }, { text: value }],
      })),
    })),
  };
}

/** The plate and the frame number of a unit, where they are known. */
function vehicleLines(unit: Unit): [string, string][] {
  const { number, registration, frameNumber } = unit;
  const said = [registration, frameNumber ? `frame ${frameNumber}` : null].filter(Boolean);
  return said.length === 0 ? [] : [[`Unit ${number}`, said.join(', ')]];
}

/** What was read off the vehicle at the run, and where it stood. */
const aboutLines = ({ about }: RunState): [string, string][] => [
  ...(about.odometer ? [['Odometer', sayOdometer(about.odometer)] as [string, string]] : []),
  ...(about.place ? [['Place', about.place] as [string, string]] : []),
];

/** What is said of the device's clock, where there is something to say. */
function clockLines({ facts, timeUnsure }: ReportedRun): [string, string][] {
  if (timeUnsure) {
    return [['Clock', 'of the device not known: the date of this test is not sure']];
  }
  const answers = clockAnswers(facts);
  const ahead = facts.map((fact) => fact.offsetMs ?? answers.get(fact.lane) ?? 0);
  const worst = ahead.reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most), 0);
  return Math.abs(worst) < CLOCK_SAID_FROM_MS
    ? []
    : [['Clock', `of the device ${sayClockAhead(worst)}; times here are by the server’s`]];
}

function ladder({ header, state }: ReportedRun): Content {
  return {
    svg: ladderSvg({
      gauge: header.made.unit.gauge,
      windows: windowsOf(state.procedure, header.made, header.made.ruleSet),
      marksPsi: ladderMarks(state).map((mark) => mark.readingPsi),
      height: LADDER_HEIGHT,
    }),
  };
}

const heading = (text: string): Content => ({
  text,
  bold: true,
  fontSize: 11.5,
  margin: [0, 10, 0, 4],
});

/** Rows ruled off by thin lines, nothing around them. */
const ruled = {
  hLineWidth: () => 0.6,
  vLineWidth: () => 0,
  hLineColor: () => RULE,
  paddingLeft: () => 0,
  paddingTop: () => 3,
  paddingBottom: () => 3,
};

function figures({ outcome, header }: ReportedRun): Content {
  const { unit } = header.made.unit.gauge;
  if (outcome.figures.length === 0) return { text: 'No figures.', color: QUIET };
  return {
    layout: ruled,
    table: {
      widths: ['*', 66, 74],
      body: outcome.figures.map((figure): TableCell[] => [
        { stack: figureWords(figure, unit) },
        { text: figureNumber(figure, unit), font: 'Numeral', bold: true, alignment: 'right' },
        verdictCell(headVerdict(figure)),
      ]),
    },
  };
}

const verdictCell = (verdict: Verdict | null): TableCell =>
  verdict
    ? { columns: [signColumn(verdict, 8, 13), { text: verdictWords[verdict], bold: true }] }
    : { text: '' };

function figureWords(figure: Figure, unit: PressureUnit): Content[] {
  const { limit, standardUncertainty } = figure;
  const other = sayOtherView(figure, unit);
  const doubt =
    standardUncertainty === null || figure.atMost !== null || figure.heads === 'as-read'
      ? ''
      : ` ± ${sayFigure(2 * standardUncertainty, figure.unit, unit)}`;
  const quiet = (text: string): Content => ({ text, fontSize: 8, color: QUIET });
  return [
    {
      text: [
        { text: figureTitles[figure.id], bold: true },
        { text: doubt, color: QUIET },
      ],
    },
    ...(limit ? [quiet(`${sayLimit(limit, figure.unit, unit)}: ${limit.source}`)] : []),
    ...(headVerdict(figure) === 'fail' && figure.means ? [quiet(figure.means)] : []),
    ...(other ? [quiet(other)] : []),
    ...(figure.settle ? [quiet(figure.settle)] : []),
  ];
}

function figureNumber(figure: Figure, unit: PressureUnit): string {
  if (figure.value === null) return 'not read';
  return `${sayHeadNumber(figure, unit)} ${figureUnitIn(figure.unit, unit)}`;
}

function findings({ outcome }: ReportedRun): Content {
  if (outcome.findings.length === 0) return [];
  return [
    heading('Seen, heard and felt'),
    {
      layout: ruled,
      table: {
        widths: ['*', 100],
        body: outcome.findings.map((finding): TableCell[] => [
          {
            stack: [
              { text: finding.title },
              ...(finding.means ? [{ text: finding.means, fontSize: 8, color: QUIET }] : []),
            ],
          },
          {
            text:
              finding.standing === 'bad'
                ? `NOT RIGHT: ${finding.said}`
                : finding.standing === 'open'
                  ? `NOT DECIDED: ${finding.said}`
                  : finding.said,
            bold: finding.standing === 'bad' || finding.standing === 'open',
          },
        ]),
      },
    },
  ];
}

function rest({ outcome, state, header }: ReportedRun): Content {
  const { unit, ruleSet } = { unit: header.made.unit.gauge.unit, ruleSet: header.made.ruleSet };
  const parts: Content[] = [];
  if (outcome.skipped.length > 0) {
    parts.push(
      heading('Left out'),
      ...outcome.skipped.map((each): Content => ({ text: `${each.title}: ${each.reason}` })),
    );
  }
  if (state.closed?.reason) parts.push(heading('Cut short'), { text: state.closed.reason });
  if (outcome.notes.length > 0) {
    parts.push(
      heading('Notes'),
      ...outcome.notes.map((note): Content => ({ text: `${note.title}: ${note.text}` })),
    );
  }
  const cautions = [...new Set(state.procedure.steps.flatMap((step) => step.cautions))];
  parts.push(heading('Cautions that went with it'), {
    text: cautions.map((each) => sayStep(each, unit, ruleSet.school)).join(' '),
    fontSize: 8,
    color: QUIET,
  });
  return parts;
}

/** Failures that stand on the units of this run at the moment of printing. */
function standing({ standing: open, header, timeZone }: ReportedRun): Content {
  if (open.length === 0) return [];
  const { unit } = header.made.unit.gauge;
  return [
    heading('Open failures when this was printed'),
    {
      ul: open.map((failure): Content => ({
        text: `${sayFailure(failure, unit)}, since ${sayMoment(failure.sinceMs, timeZone)}`,
      })),
    },
    {
      text: 'Each stays open until the same thing is tested again in the same state and passes.',
      fontSize: 8,
      color: QUIET,
      margin: [0, 2, 0, 0],
    },
  ];
}

/** Room to sign for it by hand. */
function signature({ by }: ReportedRun): Content {
  const line = (name: string): Content => ({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 230, y2: 0, lineWidth: 0.6, lineColor: INK }] },
      { text: name, fontSize: 8, color: QUIET, margin: [0, 3, 0, 0] },
    ],
  });
  return {
    unbreakable: true,
    columnGap: 24,
    margin: [0, 44, 0, 0],
    columns: [line(`Signature, ${by}`), line('Place and date')],
  };
}

function marks({ state, header, facts, timeZone }: ReportedRun): Content {
  const clock = new Intl.DateTimeFormat('en-GB', { timeStyle: 'medium', timeZone });
  if (state.marks.length === 0) return [];
  const answers = clockAnswers(facts);
  const byId = new Map(facts.map((fact) => [fact.id, fact]));
  const at = (mark: LiveMark) => {
    const fact = byId.get(mark.factId);
    return fact ? correctedMs(fact, answers.get(fact.lane)) : mark.atMs;
  };
  const titles = new Map(state.procedure.steps.map((step) => [step.id, step.title]));
  return [
    heading(
      `Marks, ${timeZone === 'UTC' ? 'UTC' : `time of ${timeZone.split('/').at(-1)?.replaceAll('_', ' ') ?? ''}`}`,
    ),
    {
      layout: ruled,
      fontSize: 8.5,
      table: {
        widths: [60, '*', 90, 70],
        body: state.marks.map((mark): TableCell[] => [
          { text: clock.format(at(mark)), font: 'Numeral' },
          { text: titles.get(mark.stepId) ?? mark.stepId },
          {
            text:
              mark.method === 'crossing' ? 'on the line' : mark.suggested ? 'suggested' : 'read',
            color: QUIET,
          },
          {
            text: sayPressure(mark.readingPsi, header.made.unit.gauge.unit),
            font: 'Numeral',
            alignment: 'right',
          },
        ]),
      },
    },
  ];
}
