import { seededNumbers } from '../test/seededNumbers';
import { sixDigits } from '../test/sixDigits';
import type { PadNow } from '../run/awaiting';
import { caughtMark } from './caughtMark';
import { linkedNowPsi, readOver } from './fitted';
import type { GaugeSample } from './sampleLog';

/*
 * Needles of every sort as a linked gauge sends them, and what is caught of them. No proof, which tests by closed forms
 * give beside, but no threshold moves unseen.
 */
const NEEDLES: readonly (readonly [string, (s: number) => number])[] = [
  ['climbs and stops', (s) => Math.min(125, 100 + 0.9 * s)],
  ['climbs, stops and cools', (s) => Math.min(125, 100 + 0.9 * s) - Math.max(0, s - 28) * 0.02],
  ['falls and climbs', (s) => (s < 20 ? 110 - 0.6 * s : 98 + 0.5 * (s - 20))],
  ['falls in strokes', (s) => 110 - 4 * Math.floor(s / 4) + Math.min(1, (s % 4) * 0.3)],
  ['stands', () => 100],
  ['leaks', (s) => 104 - s / 15],
  ['creeps up', (s) => 100 + 0.03 * s],
];
const pad = (method: 'crossing' | 'read', shows?: PadNow['spec']['shows']): PadNow => ({
  spec: {
    ...{ key: 'key', pad: '', hint: '' },
    at: method === 'crossing' ? 'passing' : 'needle',
    proposal: { from: 'level', psi: 103 },
    ...(shows ? { shows } : {}),
  },
  proposedPsi: 103,
  method,
  between: null,
});
const PADS = [
  pad('crossing'),
  ...(['stops-rising', 'starts-rising', 'steady'] as const).map((shows) => pad('read', shows)),
  pad('read'),
];

it.each(NEEDLES)('a needle that %s', (_, psiAt) => {
  const lines = [0, 0.05, 0.2].flatMap((noise) => {
    const { between, normal } = seededNumbers(3);
    const log: GaugeSample[] = [];
    for (let seq = 0; seq < 600; seq += 1) {
      const psi = Math.round((psiAt(seq / 10) + noise * normal()) / 0.05) * 0.05;
      if (between(0, 30) > 1) log.push({ seq, atMs: seq * 100, psi });
    }
    // When each is caught first, as the readings come in.
    const caught = PADS.map((each) => {
      for (let upTo = 1; upTo <= log.length; upTo += 1) {
        const mark = caughtMark(each, log.slice(0, upTo), 1_500);
        if (mark) return `at ${log[upTo - 1]!.atMs}: ${sixDigits(mark)}`;
      }
      return 'never';
    });
    const read = [10_000, 33_000].map((atMs) => sixDigits(readOver(log, atMs - 4_000, atMs)));
    return [`noise ${noise}`, ...caught, ...read, linkedNowPsi(log).toPrecision(6)];
  });
  expect(lines.join('\n')).toMatchSnapshot();
});
