import { stillCounts } from './evidenceOf';

type Evidence = Parameters<typeof stillCounts>[0][number];

const DAY_MS = 86_400_000;
const found = (id: string, day: number, kind: 'check' | 'repair' = 'check') =>
  ({ id, kind, atMs: day * DAY_MS }) as unknown as Evidence;
const ids = (evidence: readonly Evidence[]) =>
  evidence.map((each) => (each as unknown as { id: string }).id);

const story = [
  found('long ago', 10),
  found('mended long ago', 11, 'repair'),
  found('a month before', 70),
  found('just inside', 70.001),
  found('today', 100),
];

it('is what came in within thirty days of the newest', () => {
  expect(ids(stillCounts(story, 100 * DAY_MS, null))).toEqual([
    'mended long ago',
    'just inside',
    'today',
  ]);
});

it('is what came in after the last run that passed', () => {
  expect(ids(stillCounts(story, 100 * DAY_MS, 99 * DAY_MS))).toEqual(['mended long ago', 'today']);
  // One that passed before that takes nothing away.
  expect(ids(stillCounts(story, 100 * DAY_MS, 20 * DAY_MS))).toHaveLength(3);
  expect(ids(stillCounts(story, 100 * DAY_MS, 100 * DAY_MS))).toEqual(['mended long ago']);
});

it('is all there is where nothing says when', () => {
  expect(stillCounts(story, null, null)).toEqual(story);
  expect(ids(stillCounts(story, null, 70 * DAY_MS))).toEqual([
    'mended long ago',
    'just inside',
    'today',
  ]);
});
