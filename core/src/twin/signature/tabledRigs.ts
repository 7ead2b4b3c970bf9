import type { AirDetails, Unit } from '@keen-bleed/contract';
import { newUnitDraft } from '../../rig/newUnit';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { Fault } from '../faults/fault';
import { faultsOf } from '../faults/faultsOf';
import { faultTable, faultTableInWords } from './faultTable';

const unit = (kind: Unit['kind'], number: string, change: Partial<Unit> = {}): Unit => ({
  id: `00000000-0000-7000-8000-0000000000${number}`,
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  number,
  name: kind,
  ...change,
});

const OTHERWISE: AirDetails = {
  modulatingValve: false,
  stopLampSwitches: 'two',
  lowAirSwitches: 'supply-tank',
  dryerPurge: 'service-tank',
};

/** The rigs whose faults are tabled: each brings the faults that those before it do not have. */
const tabledRigs: readonly (readonly [title: string, rig: RigUnderTest])[] = [
  [
    'A tractor and trailer',
    { unit: unit('tractor', '11'), towed: [unit('trailer', '22', { name: 'trailer' })] },
  ],
  [
    'With numbered ports',
    {
      unit: unit('tractor', '12', { ports: 'numbers' }),
      towed: [unit('trailer', '23', { ports: 'numbers' })],
    },
  ],
  [
    'With two stop-lamp switches, one low-air switch, a dryer that purges from a service tank, and load sensing',
    {
      unit: unit('truck', '13', {
        air: OTHERWISE,
        chambers: [
          { type: '20', count: 2, springBrake: false },
          { type: '30', count: 4, springBrake: true, loadSensing: true },
        ],
      }),
      towed: [],
    },
  ],
];

/** The whole table, as it stands in the docs. */
export function faultTables(): string {
  const told = new Set<string>();
  return tabledRigs
    .map(([title, rig]) => {
      const isNew = ({ id }: Fault) => !told.has(id);
      const rows = faultTable(rig, isNew);
      for (const { id } of faultsOf(rig)) told.add(id);
      return `## ${title}\n\n${faultTableInWords(rows)}\n`;
    })
    .join('\n');
}
