import { sayAnswer } from './sayAnswer';

describe('an answer in words', () => {
  it('of points is what they come to, in the unit that is spoken', () => {
    const points = [4, 6, 8, 10, 20, 40].map((at): [number, number] => [at, Math.max(0, at - 5)]);
    const answer = { kind: 'points' as const, points, compared: true };
    expect(sayAnswer(answer, null, 'psi')).toMatch(/^Opens at 5 psi, .*; 6 points$/);
    expect(sayAnswer(answer, null, 'bar')).toMatch(/^Opens at 0\.3\d? bar/);
    // Gauges that nobody compared leave more open.
    const doubt = (text: string) => Number(/± ([\d.]+)/.exec(text)?.[1]);
    expect(doubt(sayAnswer({ ...answer, compared: false }, null, 'psi'))).toBeGreaterThan(
      2 * doubt(sayAnswer(answer, null, 'psi')),
    );
  });

  it('of too few points is the points themselves', () => {
    const two = {
      kind: 'points' as const,
      points: [
        [10, 6],
        [20, 16],
      ] as [number, number][],
    };
    expect(sayAnswer(two, null, 'psi')).toBe('10 psi in, 6 psi out; 20 psi in, 16 psi out');
  });
});
