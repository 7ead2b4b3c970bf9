import { unitOf } from '../test/walk';
import { faultsOf } from '../twin/faults/faultsOf';
import { complaints, complaintsLike, SAID_ANYHOW, saysOf } from './complaints';

/* Shares are common practice with no source: what is held is who says what of which part, and that nothing is said
   of a part that has nothing to do with it. */

const rigs = [
  { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] },
  { unit: unitOf('truck', '12'), towed: [unitOf('trailer', '23')] },
  { unit: unitOf('bus', '2'), towed: [] },
];
const faults = rigs.flatMap((rig) => faultsOf(rig, -10));
const complaintOf = (id: string) => complaints.find((each) => each.id === id)!;
const faultOf = (id: string) => {
  const found = faults.find((each) => each.id === id);
  if (!found) throw new Error(`no rig here can have “${id}”`);
  return found;
};
const says = (complaint: string, fault: string, severity?: number) =>
  saysOf(complaintOf(complaint), faultOf(fault), severity);

describe('what a driver says', () => {
  it('has only rows that some rig can have', () => {
    const dead = complaints.flatMap(({ id, said }) =>
      said.flatMap(([of]) => (faults.some((fault) => of.test(fault.id)) ? [] : [`${id}: ${of}`])),
    );
    expect(dead).toEqual([]);
  });

  it('is said of a sound rig as well, now and then', () => {
    for (const complaint of complaints) expect(saysOf(complaint, null)).toBe(SAID_ANYHOW);
  });

  it.each([
    ['slow-to-build', 'compressor worn'],
    ['slow-to-build', 'intake blocked'],
    ['slow-to-build', 'narrowed: discharge'],
    ['slow-to-build', 'leak: discharge line'],
    ['short-cycles', 'governor narrow'],
    ['short-cycles', 'outlet check'],
    ['buzzer-at-start', 'leak: primary tank'],
    ['buzzer-at-start', 'leak: secondary tank'],
    ['buzzer-at-start', 'warning always'],
    ['lamp-flashes', 'governor low'],
  ])('%s is said of “%s”, by more than say it anyhow', (complaint, fault) => {
    const real = faults.find(({ id }) => id.startsWith(fault));
    expect(real?.id).toContain(fault);
    expect(saysOf(complaintOf(complaint), real!)).toBeGreaterThan(2 * SAID_ANYHOW);
  });

  it.each([
    ['slow-to-build', 'warning always'],
    ['short-cycles', 'warning always'],
    ['freezes', 'compressor worn'],
    ['trailer-drags', 'compressor worn'],
    ['trailer-pushes', 'governor narrow'],
    ['axle-late', 'compressor worn'],
  ])('%s is not said of “%s” more than anyhow', (complaint, fault) => {
    const real = faults.find(({ id }) => id.startsWith(fault))!;
    expect(saysOf(complaintOf(complaint), real)).toBe(SAID_ANYHOW);
  });

  it('is said by fewer of a slight fault than of a bad one', () => {
    for (const complaint of complaints) {
      for (const fault of faults) {
        const [slight, bad] = [0.1, 1].map((severity) => saysOf(complaint, fault, severity));
        expect(slight).toBeLessThanOrEqual(bad!);
        expect(slight).toBeGreaterThanOrEqual(SAID_ANYHOW);
      }
    }
    expect(says('slow-to-build', 'compressor worn', 0.05)).toBeLessThan(
      says('slow-to-build', 'compressor worn', 1),
    );
  });

  it('is found by its title or by other words for it, however they are written', () => {
    const ids = (words: string) => complaintsLike(words).map(({ id }) => id);
    expect(ids('  SHORT-cycles ')).toEqual(['short-cycles']);
    expect(ids('jackknife')).toEqual(['trailer-pushes']);
    expect(ids('no air overnight')).toEqual(['buzzer-at-start']);
    expect(ids('zebra')).toEqual([]);
    expect(ids('')).toEqual(complaints.map(({ id }) => id));
  });
});
