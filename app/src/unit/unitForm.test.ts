import type { AirDetails } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { draftOf, formOf, problemsByBox, type UnitForm } from './unitForm';

const filled = (change: Partial<UnitForm> = {}, unit: 'psi' | 'bar' = 'psi'): UnitForm => ({
  ...formOf({ ...newUnitDraft('truck', 2015), number: '7', name: 'Tipper' }, unit),
  ...change,
});
const draft = (form: UnitForm) => {
  const read = draftOf(form);
  if ('problems' in read) throw new Error(JSON.stringify(read.problems));
  return read.draft;
};
const problems = (form: UnitForm) => {
  const read = draftOf(form);
  return 'problems' in read ? problemsByBox(read.problems) : {};
};

describe('the unit form', () => {
  it('gives back the draft it was filled from', () => {
    const start = {
      ...newUnitDraft('tractor', 2012),
      number: '7',
      name: 'Tractor',
      makerLimits: { buildUpMaxS: 40 },
    };
    expect(draft(formOf(start, 'psi'))).toEqual(start);
  });

  it('gives back what is known of the compressor and valves, in either unit', () => {
    const air: AirDetails = {
      compressorLPerTurn: 0.3,
      compressorPerEngineTurn: 1.25,
      compressorClearance: 0.06,
      modulatingValve: false,
      antiCompounding: true,
      stopLampSwitches: 'two',
      lowAirSwitches: 'supply-tank',
      dryerPurge: 'service-tank',
    };
    const start = { ...newUnitDraft('tractor', 2012), number: '7', name: 'Tractor', air };
    expect(draft(formOf(start, 'bar')).air).toEqual(air);
    const inPsi = formOf(start, 'psi');
    expect(inPsi.displacement).toBe('18.3');
    expect(draft(inPsi).air?.compressorLPerTurn).toBeCloseTo(0.3, 3);
    // What a unit without a compressor cannot have is not sent, whatever the boxes still hold.
    const towed = formOf({ ...newUnitDraft('trailer', 2012), number: '8', name: 'Box' }, 'psi');
    expect(draft({ ...towed, modulatingValve: 'fitted' }).air).toBeUndefined();
    expect(problems(filled({ displacement: '9000' })).displacement).toMatch(/displacement/i);
    expect(problems(filled({ clearancePercent: 'wide' })).clearancePercent).toBeDefined();
  });

  it('keeps what was found of parts, but for what it now says otherwise', () => {
    const parts = ['rear-relay', 'modulating-valve'].map((partId) => ({
      partId,
      standing: 'fitted' as const,
      foundAtMs: 1_000,
    }));
    const start = { ...newUnitDraft('truck', 2015), number: '7', name: 'Tipper' };
    const form = formOf({ ...start, parts, air: { modulatingValve: true } }, 'psi');
    expect(draft(form).parts).toEqual(parts);
    expect(draft({ ...form, modulatingValve: 'none' }).parts).toEqual(parts.slice(0, 1));
    expect(draft(formOf(start, 'psi')).parts).toBeUndefined();
    const lines = [{ lineId: 'rear-relay.supply', standing: 'fitted' as const, foundAtMs: 1 }];
    expect(draft(formOf({ ...start, lines }, 'psi')).lines).toEqual(lines);
    expect(draft(formOf(start, 'psi')).lines).toBeUndefined();
  });

  it('takes bar and litres, and keeps psi and cubic inches', () => {
    const form = filled({ cutIn: '7,2', cutOut: '8.6' }, 'bar');
    expect(form.volumeUnit).toBe('L');
    const { governor, tanks } = draft(form);
    expect(governor?.cutInPsi).toBeCloseTo(104.43, 2);
    expect(governor?.cutOutPsi).toBeCloseTo(124.73, 2);
    expect(tanks[1]?.volumeIn3).toBe(2100);
  });

  it('leaves out a maker’s limit whose box is empty, and a governor where there is no compressor', () => {
    expect(draft(filled()).makerLimits).toEqual({});
    expect(draft(filled({ makerStaticLeak: '1.5' })).makerLimits).toEqual({
      staticLeakMaxPsiPerMin: 1.5,
    });
    const trailer = filled({ kind: 'trailer', tanks: [{ role: 'trailer', volume: '2850' }] });
    expect(draft(trailer).governor).toBeNull();
  });

  it('puts each problem at its box, in words', () => {
    expect(problems(filled({ number: ' ' }))).toEqual({ number: 'Unit number is missing.' });
    expect(problems(filled({ cutIn: '130' })).cutIn).toContain('below cut-out');
    expect(problems(filled({ cutIn: 'high' })).cutIn).toBe('Governor cut-in must be a number.');
    expect(problems(filled({ gaugeTop: '' })).gaugeTop).toBe('Top of the gauge must be a number.');
    expect(
      problems(filled({ makerCutOutMin: '130', makerCutOutMax: '120' })).makerCutOutMin,
    ).toContain('below the highest');
    const tank = filled({
      tanks: [
        { role: 'primary', volume: '3' },
        { role: 'secondary', volume: '2100' },
      ],
    });
    expect(problems(tank)['tanks.0.volume']).toBe('Tank volume must be at least 50.');
  });

  it('finds the box of a problem the server names', () => {
    expect(problemsByBox([{ field: 'draft.governor.cutInPsi', message: 'x' }])).toEqual({
      cutIn: 'x',
    });
  });
});
