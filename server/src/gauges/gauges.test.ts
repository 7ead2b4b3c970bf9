import type { SentSample } from '@keen-bleed/contract';
import { newUnitDraft, withSample, type GaugeSample } from '@keen-bleed/core';
import { seededRandom } from '../random/seededRandom';
import { madeUpRig } from '../test/madeUpRig';
import { addUnit, makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';
import { GaugeSet } from './gaugeSet';

describe('a gauge set', () => {
  const sent = new GaugeSet(madeUpRig, 0, seededRandom(3)).samplesTo(700_000);
  const of = (channel: string) => sent.filter((sample) => sample.channel === channel);
  const log = of('primary').reduce<readonly GaugeSample[]>(withSample, []);

  it('sends every channel of the rig, loses some, sends some again and some late', () => {
    for (const channel of ['primary', 'secondary', 'supply']) {
      const seqs = of(channel).map((sample) => sample.seq);
      expect(seqs.length).toBeGreaterThan(6_000);
      expect(new Set(seqs).size).toBeLessThan(7_000);
      expect(new Set(seqs).size).toBeLessThan(seqs.length);
    }
    expect(sent.some((sample) => sample.sentAtMs > sample.atMs)).toBe(true);
    const gaps = log.slice(1).map((sample, i) => sample.atMs - (log[i]?.atMs ?? 0));
    expect(Math.max(...gaps)).toBeGreaterThan(2_000);
  });

  it('shows a whole test: up to cut-out, down past the pop-out, and up again', () => {
    const top = Math.max(...log.map((sample) => sample.psi));
    expect(top).toBeGreaterThan(120);
    const bottomAt = log.findIndex((sample) => sample.psi < 20);
    expect(bottomAt).toBeGreaterThan(0);
    expect(Math.max(...log.slice(bottomAt).map((sample) => sample.psi))).toBeGreaterThan(80);
  });

  it('runs down its battery', () => {
    const charge = (sample: SentSample | undefined) => sample?.battery ?? NaN;
    expect(charge(sent.at(-1))).toBeLessThan(charge(sent[0]));
    expect(charge(sent.at(-1))).toBeGreaterThanOrEqual(0);
  });

  it('comes out the same for the same seed', () => {
    expect(new GaugeSet(madeUpRig, 0, seededRandom(3)).samplesTo(60_000)).toEqual(
      sent.filter((sample) => sample.sentAtMs <= 60_000),
    );
  });
});

describe('the gauge hub', () => {
  let shop: TestShop;
  let staff: Staff;
  let others: Staff;
  beforeAll(async () => {
    shop = await openTestShop();
    staff = await makeStaff(shop, 'g');
    others = await makeStaff(shop, 'h');
  });
  afterAll(() => shop.close());

  it('is refused to a viewer, to another shop, for no unit, and for one without an engine', async () => {
    const truck = await addUnit(staff.lead, {
      ...newUnitDraft('truck', 2015),
      number: '1',
      name: 'truck',
    });
    const trailer = await addUnit(staff.lead, {
      ...newUnitDraft('trailer', 2015),
      number: '2',
      name: 'trailer',
    });
    await staff.viewer.get(`/api/units/${truck.id}/gauges/live`).expect(403);
    await others.technician.get(`/api/units/${truck.id}/gauges/live`).expect(404);
    await staff.technician.get('/api/units/none/gauges/live').expect(404);
    await staff.technician.get(`/api/units/${trailer.id}/gauges/live`).expect(422);
  });
});
