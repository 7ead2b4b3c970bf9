import type { Unit } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import { makeDrawing } from '../air/drawing';
import { madeUpUnit } from '../test/madeUpUnit';
import type { BayFrame, BayMove } from './bayProtocol';
import { makeBay } from './bayWorker';
import { cabControls, timeControl } from './cabControls';
import type { Bay } from './useBay';

const unit = (kind: 'tractor' | 'truck' | 'trailer', change: Partial<Unit> = {}) =>
  madeUpUnit(kind, { number: kind === 'trailer' ? '22' : '11', name: kind, ...change });

/** A rig in the Bay as the screen has it, with what its controls send. */
function inBay(rig: RigUnderTest) {
  const worker = makeBay(() => 0);
  const sent: BayMove[] = [];
  let frame: BayFrame | null = null;
  const opened = worker.open(
    { rig, outsideC: 20, heightM: 0, load: 1, hidden: 0, seed: 1 },
    (next) => (frame = next),
  );
  const bay = (): Bay => ({
    rig: { ...opened, ...makeDrawing().draw(rig, { shopAir: true }) },
    frame: frame as unknown as BayFrame,
    startedAtMs: 0,
    log: [],
    move: (move) => {
      sent.push(move);
      worker.move(move);
    },
    check: () => Promise.resolve(null),
    mend: () => Promise.resolve(),
    sound: () => Promise.resolve({}),
    end: () => Promise.reject(new Error('not here')),
  });
  return { bay, sent };
}
const labels = (rig: RigUnderTest) =>
  cabControls(inBay(rig).bay(), rig.unit.gauge.unit).map(({ label }) => label);

describe('the controls of a cab', () => {
  it('are those the rig has', () => {
    expect(labels({ unit: unit('truck'), towed: [] })).toEqual([
      'Engine',
      'Pedal, psi asked',
      'Park, yellow',
    ]);
    expect(labels({ unit: unit('tractor'), towed: [unit('trailer')] })).toEqual([
      'Engine',
      'Pedal, psi asked',
      'Park, yellow',
      'Trailer supply, red',
      'Hand valve, psi asked',
    ]);
    expect(labels({ unit: unit('trailer'), towed: [] })).toEqual([
      'Shop air',
      'Service, psi asked',
    ]);
    expect(
      labels({
        unit: unit('tractor', { ports: 'numbers' }),
        towed: [unit('trailer', { ports: 'numbers' })],
      }),
    ).toEqual(['Engine', 'Pedal, psi asked', 'Hand brake']);
  });

  it('ask for round pressures in the unit of the gauge, and send psi', () => {
    const bar = unit('truck', { gauge: { unit: 'bar', division: 0.2, top: 12 } });
    const { bay, sent } = inBay({ unit: bar, towed: [] });
    const pedal = cabControls(bay(), 'bar').find(({ label }) => label === 'Pedal, bar asked');
    expect(pedal?.options.map(({ title }) => title)).toEqual(['up', '1.5', '4', 'full']);
    const four = pedal?.options.find(({ title }) => title === '4');
    pedal?.onChange(four?.value ?? '');
    expect(sent).toEqual([{ kind: 'pedal', psi: expect.closeTo(58.02, 2) as number }]);
    // It stands where it was put, told by the rig and not by the screen.
    const now = cabControls(bay(), 'bar').find(({ label }) => label === 'Pedal, bar asked');
    expect(now?.value).toBe(four?.value);
  });

  it('move what they say they move', () => {
    const { bay } = inBay({ unit: unit('tractor'), towed: [unit('trailer')] });
    const put = (label: string, value: string) => {
      cabControls(bay(), 'psi')
        .find((each) => each.label === label)
        ?.onChange(value);
      return cabControls(bay(), 'psi').find((each) => each.label === label)?.value;
    };
    expect(put('Engine', '1400')).toBe('1400');
    expect(put('Park, yellow', 'in')).toBe('in');
    expect(put('Trailer supply, red', 'in')).toBe('in');
    expect(put('Trailer supply, red', 'out')).toBe('out');
    expect(put('Hand valve, psi asked', '40')).toBe('40');
    timeControl(bay()).onChange('16');
    expect(timeControl(bay()).value).toBe('16');
    const shop = inBay({ unit: unit('trailer'), towed: [] });
    const valve = () => cabControls(shop.bay(), 'psi')[0];
    expect(valve()?.value).toBe('off');
    valve()?.onChange('on');
    expect(valve()?.value).toBe('on');
  });
});
