import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { semi, truck } from '../test/rigsInAir';
import type { Check } from './check';
import { checksOf } from './catalogue';

/*
 * Which cautions a check must carry, by its state and its place, written apart from the code that gives them [common
 * practice, no source]: what is hot, what moves, what throws out grit, what is underneath, what rolls away.
 */
const HOT = ['compressor', 'discharge-line', 'governor', 'dryer'];
const CAB = ['foot-valve', 'park-control', 'hand-brake-valve', 'trailer-supply-control'];
const BESIDE = ['gauge', 'hand-valve', 'dash-feed', 'dash-double-check'];
const COUPLERS = ['supply-coupler', 'service-coupler'];
const SPRINGS_OFF = ['released', 'applied', 'red out', 'hand on', 'supply drained', 'cocks shut'];

const group = ({ part }: Check) => part.split('.')[0]!;
/** Read off the dash, or timed there, with nothing teed in. */
const fromSeat = ({ act, tools }: Check) =>
  ['watch', 'lamp', 'read', 'time'].includes(act) && tools.every((tool) => tool === 'timer');
const speaks = (check: Check, of: RegExp) => check.cautions.some((each) => of.test(each));

const rigs = Object.entries({ 'a truck': truck, 'a semi': semi, ...rigsOfEverySort });
const every = rigs.flatMap(([name, rig]) =>
  checksOf(rig, []).map((check) => [name, check] as const),
);
const naming = (bad: readonly (readonly [string, Check])[]) =>
  bad.map(([name, { id, cautions }]) => `${name}: ${id}: ${cautions.join(' / ')}`);

describe('every check of every rig', () => {
  it('that puts a hand near heat says so', () => {
    const near = every.filter(([, check]) => HOT.includes(group(check)) && !fromSeat(check));
    expect(near.length).toBeGreaterThan(50);
    expect(naming(near.filter(([, check]) => !speaks(check, /hot/i)))).toEqual([]);
  });

  it('that is done underneath asks for chocks before anybody goes under', () => {
    const under = every.filter(
      ([, check]) =>
        !fromSeat(check) && ![...CAB, ...BESIDE, ...COUPLERS, 'compressor'].includes(group(check)),
    );
    expect(under.length).toBeGreaterThan(500);
    expect(naming(under.filter(([, check]) => !speaks(check, /under/i)))).toEqual([]);
  });

  it('at a chamber, or with the pedal worked underneath, keeps hands off the rods', () => {
    const moving = every.filter(
      ([, check]) =>
        !fromSeat(check) &&
        (group(check).includes('chamber') ||
          (check.state.pedalPsi > 0 &&
            ![...CAB, ...BESIDE, ...COUPLERS, 'compressor'].includes(group(check)))),
    );
    expect(moving.length).toBeGreaterThan(200);
    expect(naming(moving.filter(([, check]) => !speaks(check, /\brods?\b|pushrods?/i)))).toEqual(
      [],
    );
  });

  it('at a drain, an exhaust, an open coupler or a bubbling joint asks for eye protection', () => {
    const open = every.filter(
      ([, { doing, part }]) =>
        ['drain', 'drained', 'listen', 'bubble', 'damp', 'wet', 'switches'].includes(doing.does) ||
        COUPLERS.includes(part),
    );
    expect(open.length).toBeGreaterThan(300);
    expect(naming(open.filter(([, check]) => !speaks(check, /eye protection/i)))).toEqual([]);
  });

  it('with the springs off says that only chocks hold it', () => {
    const rolls = every.filter(([, { state }]) => SPRINGS_OFF.includes(state.id));
    expect(naming(rolls.filter(([, check]) => !speaks(check, /chock/i)))).toEqual([]);
  });

  it('carries none only where it is read from the seat, parked or in neutral', () => {
    const none = every.filter(([, { cautions }]) => cautions.length === 0);
    expect(naming(none.filter(([, check]) => !fromSeat(check)))).toEqual([]);
    // Of a truck's 182 there were 23.
    expect(none.filter(([name]) => name === 'a truck').length).toBeLessThanOrEqual(3);
  });
});
