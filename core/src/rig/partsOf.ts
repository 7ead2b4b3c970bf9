import type { Unit } from '@keen-bleed/contract';
import { hasCompressor } from './hasCompressor';

/** What a part is, whatever it is called on the vehicle. */
export type PartRole =
  | 'compressor'
  | 'governor'
  | 'pre-cleaner'
  | 'dryer'
  | 'safety-valve'
  | 'tank'
  | 'drain'
  | 'check-valve'
  | 'double-check'
  | 'foot-valve'
  | 'quick-release'
  | 'relay'
  | 'relay-emergency'
  | 'park-relay'
  | 'load-sensing'
  | 'modulating-valve'
  | 'antilock-modulator'
  /** Where accessories take their air, behind a valve that keeps the brakes theirs. */
  | 'accessory'
  /** Something that is worked by air behind it. */
  | 'consumer'
  /** The chambers of one axle group together. */
  | 'chambers'
  /** One wheel's chamber. */
  | 'chamber'
  | 'park-control'
  | 'hand-brake-valve'
  | 'trailer-supply-control'
  | 'trailer-control-valve'
  | 'tractor-protection'
  | 'hand-valve'
  | 'stop-lamp-switch'
  | 'low-air-switch'
  | 'gauge'
  | 'line'
  | 'coupler'
  | 'cock';

/** A part of a unit. */
export interface Part {
  /** Stable within its unit; records name a part by this. */
  id: string;
  role: PartRole;
  /** What it is called in a list of this unit's parts. */
  title: string;
}

/**
 * What a unit is made of, as far as its description tells: entered tanks and chambers, and the valves that go with
 * them. Network, faults, drawing and records name a part by the ids given here.
 */
export function partsOf(unit: Described): readonly Part[] {
  return hasCompressor(unit.kind) ? poweredParts(unit) : towedParts(unit);
}

const part = (id: string, role: PartRole, title: string): Part => ({ id, role, title });

export type Described = Pick<Unit, 'kind' | 'circuits' | 'ports' | 'chambers' | 'air'>;

function poweredParts({ kind, circuits, ports, chambers, air = {} }: Described): Part[] {
  const dual = circuits === 'dual';
  const numbered = ports === 'numbers';
  const sprung = chambers.some((group) => group.springBrake);
  const { front, rear } = axlesOf(chambers);
  const parts: (Part | false)[] = [
    part('compressor', 'compressor', 'Compressor'),
    part('discharge-line', 'line', 'Discharge line'),
    part('governor', 'governor', 'Governor'),
    part('dryer', 'dryer', 'Air dryer'),
    part('safety-valve', 'safety-valve', 'Safety valve'),
    part('supply-tank', 'tank', 'Supply tank'),
    part('supply-drain', 'drain', 'Supply tank drain'),
    part(
      'primary-check',
      'check-valve',
      numbered ? 'Protection valve, primary circuit' : 'Primary supply check',
    ),
    part('primary-tank', 'tank', 'Primary tank'),
    part('primary-drain', 'drain', 'Primary tank drain'),
    dual &&
      part(
        'secondary-check',
        'check-valve',
        numbered ? 'Protection valve, secondary circuit' : 'Secondary supply check',
      ),
    dual && part('secondary-tank', 'tank', 'Secondary tank'),
    dual && part('secondary-drain', 'drain', 'Secondary tank drain'),
    numbered && part('third-circuit', 'check-valve', 'Protection valve, third circuit'),
    part('dash-feed', 'line', 'Feed of the dash controls'),
    dual && !numbered && part('dash-double-check', 'double-check', 'Dash double check'),
    part('foot-valve', 'foot-valve', 'Foot valve'),
    front.some((group) => group.loadSensing) &&
      part('front-load-sensing', 'load-sensing', 'Front load-sensing valve'),
    part('front-quick-release', 'quick-release', 'Front quick-release'),
    ...front.flatMap((group, i) => chamberParts('front-chambers', 'Front', group, i, front)),
    rear.some((group) => group.loadSensing) &&
      part('load-sensing', 'load-sensing', 'Rear load-sensing valve'),
    part('rear-control-line', 'line', 'Rear relay control line'),
    part('rear-relay', 'relay', 'Rear relay'),
    ...rear.flatMap((group, i) => chamberParts('rear-chambers', 'Rear', group, i, rear)),
    sprung && numbered && part('hand-brake-valve', 'hand-brake-valve', 'Hand brake valve'),
    sprung && !numbered && part('park-control', 'park-control', 'Park control'),
    sprung && part('park-line', 'line', 'Park line'),
    sprung &&
      (air.antiCompounding ?? true) &&
      part('anti-compounding', 'double-check', 'Anti-compounding double check'),
    sprung &&
      (air.modulatingValve ?? (dual && !numbered)) &&
      part('modulating-valve', 'modulating-valve', 'Spring brake modulating valve'),
    sprung && part('park-relay', 'park-relay', 'Park relay'),
    part('antilock', 'antilock-modulator', 'Antilock modulators'),
    part('accessories', 'accessory', 'Suspension and other accessories'),
    ...switchParts(air, dual),
    part('gauge', 'gauge', 'Dash gauge'),
    ...(kind === 'bus' ? [] : trailerControls(numbered && sprung)),
  ];
  return parts.filter((each) => each !== false);
}

/** One stop-lamp switch behind a double check, or two; a low-air switch on each tank, or one on the supply tank. */
function switchParts(air: NonNullable<Unit['air']>, dual: boolean): Part[] {
  const lamp = (id: string, title: string) => part(id, 'stop-lamp-switch', title);
  const low = (id: string, title: string) => part(id, 'low-air-switch', title);
  return [
    ...(air.stopLampSwitches === 'two'
      ? [
          lamp('primary-stop-lamp-switch', 'Primary stop-lamp switch'),
          lamp('secondary-stop-lamp-switch', 'Secondary stop-lamp switch'),
        ]
      : [lamp('stop-lamp-switch', 'Stop-lamp switch')]),
    ...(air.lowAirSwitches === 'supply-tank'
      ? [low('supply-low-air-switch', 'Low-air switch')]
      : [
          low('primary-low-air-switch', 'Primary low-air switch'),
          ...(dual ? [low('secondary-low-air-switch', 'Secondary low-air switch')] : []),
        ]),
  ];
}

/** Steering axles have no springs; a vehicle with no springs at all has its first group in front. */
export function axlesOf(chambers: Unit['chambers']): {
  front: Unit['chambers'];
  rear: Unit['chambers'];
} {
  const sprung = chambers.filter((group) => group.springBrake);
  const plain = chambers.filter((group) => !group.springBrake);
  if (sprung.length > 0) return { front: plain, rear: sprung };
  return { front: plain.slice(0, 1), rear: plain.slice(1) };
}

/** A group's id: the first of an end has no number. */
export const groupId = (of: string, group: number): string =>
  `${of}${group === 0 ? '' : `-${group + 1}`}`;

/** A wheel of an axle group: `axle` counts the axles of that end, from the front. */
export interface Wheel {
  id: string;
  axle: number;
  side: 'left' | 'right';
}

/** The wheels of one group, left and right of each axle; an odd one out stands on the left. */
export function wheelsOf(of: string, groups: Unit['chambers'], group: number): Wheel[] {
  const axlesOfGroup = (at: number) => Math.ceil((groups[at]?.count ?? 0) / 2);
  const before = Array.from({ length: group }, (_, at) => axlesOfGroup(at)).reduce(
    (a, b) => a + b,
    0,
  );
  const count = groups[group]?.count ?? 0;
  return Array.from({ length: count }, (_, n): Wheel => {
    const side = n % 2 === 0 ? 'left' : 'right';
    const inGroup = Math.floor(n / 2);
    return { id: `${groupId(of, group)}.${inGroup + 1}-${side}`, axle: before + inGroup, side };
  });
}

/** An axle group's chambers as one, as faults and readings know them, and each wheel's. */
function chamberParts(
  of: string,
  end: string,
  { count }: Unit['chambers'][number],
  group: number,
  groups: Unit['chambers'],
): Part[] {
  const number = group === 0 ? '' : ` ${group + 1}`;
  const axles = groups.reduce((sum, each) => sum + Math.ceil(each.count / 2), 0);
  return [
    part(
      groupId(of, group),
      'chambers',
      end === '' ? `Chambers${number}` : `${end} chambers${number}`,
    ),
    ...(count > 0 ? wheelsOf(of, groups, group) : []).map(({ id, axle, side }) => {
      const at = [end.toLowerCase(), axles > 1 ? `axle ${axle + 1}` : '', side]
        .filter(Boolean)
        .join(' ');
      return part(id, 'chamber', `${at.charAt(0).toUpperCase()}${at.slice(1)} chamber`);
    }),
  ];
}

/** Parts that only some units have: they are in the air once somebody has found them. */
export function optionalParts({ kind }: Pick<Described, 'kind'>): readonly Part[] {
  const consumer = (id: string, title: string) => part(id, 'consumer', title);
  if (!hasCompressor(kind)) {
    return [
      consumer('suspension', 'Levelling valve and suspension'),
      consumer('tyre-inflation', 'Tyre inflation, behind its cock and regulator'),
    ];
  }
  return [
    part('pre-cleaner', 'pre-cleaner', 'Pre-cleaner'),
    consumer('suspension', 'Levelling valve and suspension'),
    consumer('horn', 'Air horn'),
    consumer('wiper', 'Air wiper'),
    consumer('seat', 'Air seat'),
    ...(kind === 'bus' ? [consumer('door', 'Door')] : []),
    consumer('tyre-inflation', 'Tyre inflation, behind its cock and regulator'),
    consumer('auxiliary-compressor', 'Auxiliary compressor, behind its check'),
  ];
}

/** What a truck or tractor works a trailer with. */
function trailerControls(numbered: boolean): Part[] {
  const ends = [
    part('trailer-supply-line', 'line', 'Supply line to the trailer'),
    part('trailer-service-line', 'line', 'Service line to the trailer'),
  ];
  if (numbered) {
    return [
      part('trailer-control-valve', 'trailer-control-valve', 'Trailer control valve'),
      ...ends,
    ];
  }
  return [
    part('trailer-supply-control', 'trailer-supply-control', 'Trailer supply control'),
    part('foot-double-check', 'double-check', 'Foot double check'),
    part('hand-valve', 'hand-valve', 'Hand valve'),
    part('hand-double-check', 'double-check', 'Hand double check'),
    part('tractor-protection', 'tractor-protection', 'Tractor protection valve'),
    ...ends,
  ];
}

function towedParts({ chambers }: Described): Part[] {
  const sprung = chambers.some((group) => group.springBrake);
  const parts: (Part | false)[] = [
    part('supply-coupler', 'coupler', 'Supply coupler'),
    part('service-coupler', 'coupler', 'Service coupler'),
    part('supply-line', 'line', 'Supply line'),
    part('service-line', 'line', 'Service line'),
    part('tank', 'tank', 'Tank'),
    part('drain', 'drain', 'Tank drain'),
    part('tank-check', 'check-valve', 'Tank check'),
    chambers.some((group) => group.loadSensing) &&
      part('load-sensing', 'load-sensing', 'Load-sensing valve'),
    sprung
      ? part('relay', 'relay', 'Relay')
      : part('relay', 'relay-emergency', 'Relay-emergency valve'),
    ...chambers.flatMap((group, i) => chamberParts('chambers', '', group, i, chambers)),
    sprung && part('spring-line', 'line', 'Spring line'),
    part('antilock', 'antilock-modulator', 'Antilock modulator'),
    part('supply-cock', 'cock', 'Supply cock'),
    part('service-cock', 'cock', 'Service cock'),
  ];
  return parts.filter((each) => each !== false);
}
