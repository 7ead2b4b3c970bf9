import type { PartRole } from '../partsOf';
import type { PortAt } from './plumbing';

/** A port of a part. */
export interface Port {
  id: string;
  title: string;
  /** Its number in the numbered-port school [std: ISO 6786, value from memory]; null where it has none. */
  number: string | null;
}

type Listed = readonly [id: string, title: string, number?: string | undefined, openings?: number];

/** 1 supply, 2 delivery, 3 exhaust, 4 control; a second digit for the circuit. */
const PORTS: Readonly<Record<PartRole, readonly Listed[]>> = {
  compressor: [
    ['delivery', 'Delivery', '2'],
    ['unloader', 'Unloader', '4'],
  ],
  governor: [
    ['sense', 'Reservoir port', '1'],
    ['signal', 'Unloader port', '2', 2],
  ],
  'pre-cleaner': [
    ['in', 'In', '1'],
    ['out', 'Out', '2'],
  ],
  dryer: [
    ['in', 'Supply', '1'],
    ['out', 'Delivery', '21'],
    ['regeneration', 'Regeneration', '22'],
    ['control', 'Control', '4'],
  ],
  'safety-valve': [['in', 'In', '1']],
  tank: [
    ['fill', 'Fill', '1'],
    ['drain', 'Drain'],
    ['out', 'Outlet', '2', 10],
  ],
  drain: [['in', 'In', '1']],
  'check-valve': [
    ['in', 'In', '1'],
    ['out', 'Out', '2'],
  ],
  'double-check': [
    ['first', 'First inlet', '11'],
    ['second', 'Second inlet', '12'],
    ['out', 'Outlet', '2', 2],
  ],
  'foot-valve': [
    ['supply-1', 'Primary supply', '11'],
    ['supply-2', 'Secondary supply', '12'],
    ['delivery-1', 'Primary delivery', '21', 4],
    ['delivery-2', 'Secondary delivery', '22', 5],
  ],
  'quick-release': [
    ['in', 'Control', '1'],
    ['out', 'Delivery', '2', 12],
  ],
  relay: [
    ['control', 'Control', '4'],
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2', 30],
  ],
  'relay-emergency': [
    ['emergency', 'Supply line', '1'],
    ['control', 'Control', '4'],
    ['supply', 'Tank', '1-2'],
    ['delivery', 'Delivery', '2', 30],
  ],
  'park-relay': [
    ['control', 'Control', '4'],
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2', 30],
  ],
  'load-sensing': [
    ['control', 'Control', '4'],
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2'],
  ],
  'modulating-valve': [
    ['control', 'Control', '4'],
    ['sense', 'Primary tank', '11'],
    ['springs', 'Springs', '2'],
  ],
  'antilock-modulator': [
    ['front', 'Front delivery', '1'],
    ['rear', 'Rear delivery', '1'],
  ],
  accessory: [
    ['in', 'In', '1'],
    ['out', 'Out', '2', 8],
  ],
  consumer: [['in', 'In', '1']],
  chambers: [],
  chamber: [
    ['service', 'Service side', '11'],
    ['spring', 'Spring side', '12'],
  ],
  'park-control': [
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2'],
  ],
  'hand-brake-valve': [
    ['supply', 'Supply', '1'],
    ['park', 'Springs', '21'],
    ['trailer', 'Trailer', '22'],
  ],
  'trailer-supply-control': [
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2'],
  ],
  'trailer-control-valve': [
    ['supply', 'Supply', '11'],
    ['foot-1', 'Primary control', '41'],
    ['foot-2', 'Secondary control', '42'],
    ['hand', 'Hand brake', '43'],
    ['red', 'Trailer supply', '21'],
    ['blue', 'Trailer service', '22'],
  ],
  'tractor-protection': [
    ['signal', 'Signal', '4'],
    ['sense', 'Trailer supply', '1'],
    ['service', 'Service line', '2'],
  ],
  'hand-valve': [
    ['supply', 'Supply', '1'],
    ['delivery', 'Delivery', '2'],
  ],
  'stop-lamp-switch': [
    ['first', 'First circuit', '11'],
    ['second', 'Second circuit', '12'],
  ],
  'low-air-switch': [['in', 'In', '1']],
  gauge: [
    ['primary', 'Primary', '1'],
    ['secondary', 'Secondary', '2'],
  ],
  line: [
    ['in', 'In'],
    ['out', 'Out', undefined, 12],
  ],
  coupler: [
    ['front', 'Front'],
    ['rear', 'Rear'],
  ],
  cock: [
    ['in', 'In'],
    ['out', 'Out'],
  ],
};

/** The ports of a role, each opening of one that has several as a port of its own: `delivery-1`, `delivery-1.2`, …. */
export function portsOf(role: PartRole): readonly Port[] {
  return PORTS[role].flatMap(([id, title, number, openings = 1]) =>
    Array.from({ length: openings }, (_, n) => ({
      id: n === 0 ? id : `${id}.${n + 1}`,
      title: openings > 1 ? `${title}, opening ${n + 1}` : title,
      number: number ?? null,
    })),
  );
}

/** Whether two ports of a role hold the same air: openings of one port, and every port of a tank. */
export function chamberOf(role: PartRole, port: string): string {
  return role === 'tank' ? 'air' : (port.split('.')[0] ?? port);
}

/** A port as people call it. */
export function portTitle(role: PartRole, port: string): string | null {
  return portsOf(role).find(({ id }) => id === port)?.title ?? null;
}

export const samePort = (a: PortAt, b: PortAt): boolean => a.part === b.part && a.port === b.port;
