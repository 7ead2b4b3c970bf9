import type { Gauge, PressureUnit, UnitDraft, UnitKind } from '@keen-bleed/contract';
import { hasCompressor } from './hasCompressor';

/** The dial each unit of pressure usually comes with. */
export const usualGauge: Readonly<Record<PressureUnit, Gauge>> = {
  psi: { unit: 'psi', division: 2, top: 150 },
  kPa: { unit: 'kPa', division: 20, top: 1000 },
  bar: { unit: 'bar', division: 0.2, top: 12 },
};

/** A draft of the common layout of its kind, so that most of the form is right before it is touched. */
export function newUnitDraft(kind: UnitKind, buildYear: number): UnitDraft {
  const powered = hasCompressor(kind);
  return {
    number: '',
    name: '',
    kind,
    buildYear,
    circuits: 'dual',
    ports: 'words',
    tanks: powered
      ? [
          { role: 'supply', volumeIn3: 1400 },
          { role: 'primary', volumeIn3: 2100 },
          { role: 'secondary', volumeIn3: 2100 },
        ]
      : [{ role: 'trailer', volumeIn3: 2850 }],
    chambers: powered
      ? [
          { type: '20', count: 2, springBrake: false },
          { type: '30', count: kind === 'bus' ? 2 : 4, springBrake: true },
        ]
      : [{ type: '30', count: kind === 'dolly' ? 2 : 4, springBrake: true }],
    governor: powered ? { cutInPsi: 100, cutOutPsi: 125 } : null,
    gauge: usualGauge.psi,
    makerLimits: {},
    gaugeChecks: [],
    testEveryDays: 90,
  };
}
