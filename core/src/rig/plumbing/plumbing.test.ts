import type { LineRecord, PartRecord, Unit } from '@keen-bleed/contract';
import fc from 'fast-check';
import { testUnit, unitOf } from '../../test/walk';
import { partsOf } from '../partsOf';
import { checkPlumbing } from './checkPlumbing';
import { plumbingOf } from './plumbingOf';
import { plumbingThatRuns } from './plumbingThatRuns';
import { portsOf } from './ports';

const truck = testUnit();
const line = (lineId: string, change: Partial<LineRecord>): LineRecord => ({
  lineId,
  standing: 'fitted',
  foundAtMs: 1_000,
  ...change,
});
const part = (partId: string, change: Partial<PartRecord> = {}): PartRecord => ({
  partId,
  standing: 'fitted',
  foundAtMs: 1_000,
  ...change,
});
const withLines = (...lines: LineRecord[]): Unit => ({ ...truck, lines });
const told = (unit: Unit) => plumbingOf(unit).problems.map(({ at, what }) => [at, what]);

describe('parts and lines', () => {
  it('of every usual layout hold together: each port has one line, air reaches every tank and chamber', () => {
    const trailer = unitOf('trailer', '20');
    const kinds = (['truck', 'tractor', 'bus', 'trailer', 'dolly'] as const).map((kind) =>
      unitOf(kind, '30'),
    );
    const units = [
      ...kinds,
      { ...truck, ports: 'numbers' as const },
      { ...truck, circuits: 'single' as const },
      { ...truck, air: { dryerPurge: 'service-tank' as const, stopLampSwitches: 'two' as const } },
      { ...truck, chambers: truck.chambers.map((group) => ({ ...group, loadSensing: true })) },
      { ...trailer, chambers: trailer.chambers.map((group) => ({ ...group, springBrake: false })) },
    ];
    for (const unit of units) {
      const { parts, lines, problems } = plumbingOf(unit);
      expect(problems).toEqual([]);
      expect(new Set(lines.map(({ id }) => id)).size).toBe(lines.length);
      expect(parts.map(({ id }) => id)).toEqual(partsOf(unit).map(({ id }) => id));
    }
  });

  it('name a line by the port it ends at, and give each wheel a chamber with its own hoses', () => {
    const { parts, lines } = plumbingOf(truck);
    const wheels = parts.filter(({ role }) => role === 'chamber');
    expect(wheels.map(({ id }) => id)).toEqual([
      'front-chambers.1-left',
      'front-chambers.1-right',
      'rear-chambers.1-left',
      'rear-chambers.1-right',
      'rear-chambers.2-left',
      'rear-chambers.2-right',
    ]);
    expect(lines.filter(({ to }) => to.port === 'spring')).toHaveLength(4);
    expect(lines.find(({ id }) => id === 'rear-relay.control')).toMatchObject({
      from: { part: 'rear-control-line', port: 'out' },
      circuit: 'service',
    });
  });

  it('run past what is not fitted, and keep what a unit cannot be without', () => {
    const without = (id: string) =>
      plumbingOf({ ...truck, parts: [part(id, { standing: 'not-fitted' })] });
    const direct = without('rear-relay');
    expect(direct.problems).toEqual([]);
    expect(direct.lines.find(({ id }) => id === 'rear-chambers.1-left.service')?.from.part).toBe(
      'rear-control-line',
    );
    expect(without('safety-valve').lines.some(({ to }) => to.part === 'safety-valve')).toBe(false);
    const none = without('foot-valve');
    expect(none.problems.map(({ at, what }) => [at, what])).toEqual([['foot-valve', 'needed']]);
    expect(none.parts.some(({ id }) => id === 'foot-valve')).toBe(true);
  });

  it('tell of a port that is not there, two lines on one port, a loop, and what nothing feeds', () => {
    expect(
      told(withLines(line('rear-relay.supply', { to: { partId: 'rear-relay', port: 'nine' } }))),
    ).toContainEqual(['rear-relay.supply', 'no-port']);
    expect(
      told(withLines(line('rear-relay.supply', { to: { partId: 'no-such', port: 'in' } }))),
    ).toContainEqual(['rear-relay.supply', 'no-part']);
    expect(
      told(
        withLines(line('rear-relay.supply', { to: { partId: 'rear-relay', port: 'control' } })),
      ).map(([, what]) => what),
    ).toContain('two-lines');
    expect(
      told(
        withLines(
          line('dash-feed.in', {
            from: { partId: 'dash-feed', port: 'in' },
            to: { partId: 'dash-feed', port: 'in' },
          }),
        ),
      ),
    ).toContainEqual(['dash-feed.in', 'loop']);
    const cut = withLines(line('primary-tank.fill', { standing: 'not-fitted' }));
    expect(told(cut)).toContainEqual(['primary-tank', 'no-feed']);
    expect(told(cut)).toContainEqual(['rear-chambers.1-left', 'no-feed']);
    const consumer = { ...truck, parts: [part('horn')] };
    expect(told(consumer)).toEqual([]);
  });

  it('tell of a part that nobody has placed, and end at a foot valve that nothing feeds', () => {
    const { parts, lines } = plumbingOf(truck);
    const lost = parts.map((each) =>
      each.id === 'rear-relay' ? { ...each, place: { row: 50, column: 0 } } : each,
    );
    expect(checkPlumbing(truck, lost, lines)).toContainEqual({
      at: 'rear-relay',
      what: 'no-place',
      text: 'Rear relay has no place yet: say where it sits.',
    });
    expect(checkPlumbing(truck, parts, lines)).toEqual([]);
  });

  it('can always be made air of, whatever is said of lines', () => {
    const { parts, lines } = plumbingOf(truck);
    const port = fc.constantFrom(
      ...parts.flatMap(({ id, role }) =>
        portsOf(role)
          .slice(0, 4)
          .map((each) => ({ partId: id, port: each.id })),
      ),
      { partId: 'gone', port: 'in' },
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ id: fc.constantFrom(...lines.map(({ id }) => id)), from: port, to: port }),
          { maxLength: 4 },
        ),
        (moved) => {
          const unit = withLines(
            ...new Map(moved.map(({ id, from, to }) => [id, line(id, { from, to })])).values(),
          );
          const runs = plumbingThatRuns(unit);
          const ids = new Set(runs.parts.map(({ id }) => id));
          for (const { from, to } of runs.lines) {
            expect(ids.has(from.part) && ids.has(to.part)).toBe(true);
          }
        },
      ),
    );
  });
});
