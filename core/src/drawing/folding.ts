import type { PlumbedPart } from '../rig/plumbing/plumbing';

/** At the level of a whole rig: what a small part is folded into, the first of these that the unit has. */
const HOSTS: Readonly<Record<string, readonly string[]>> = {
  governor: ['compressor'],
  'discharge-line': ['compressor'],
  'pre-cleaner': ['dryer', 'compressor'],
  gauge: ['foot-valve'],
  'safety-valve': ['supply-tank'],
  'supply-drain': ['supply-tank'],
  'supply-low-air-switch': ['supply-tank'],
  'primary-check': ['primary-tank'],
  'primary-drain': ['primary-tank'],
  'primary-low-air-switch': ['primary-tank'],
  'secondary-check': ['secondary-tank'],
  'secondary-drain': ['secondary-tank'],
  'secondary-low-air-switch': ['secondary-tank'],
  accessories: ['secondary-tank', 'primary-tank'],
  suspension: ['secondary-tank', 'primary-tank', 'tank'],
  horn: ['secondary-tank', 'primary-tank'],
  wiper: ['secondary-tank', 'primary-tank'],
  seat: ['secondary-tank', 'primary-tank'],
  door: ['secondary-tank', 'primary-tank'],
  'tyre-inflation': ['secondary-tank', 'primary-tank', 'tank'],
  'auxiliary-compressor': ['supply-tank'],
  'third-circuit': ['hand-brake-valve', 'park-control'],
  'dash-feed': ['park-control', 'hand-brake-valve', 'foot-valve'],
  'dash-double-check': ['park-control', 'foot-valve'],
  'stop-lamp-switch': ['foot-valve'],
  'primary-stop-lamp-switch': ['foot-valve'],
  'secondary-stop-lamp-switch': ['foot-valve'],
  'front-load-sensing': ['front-quick-release', 'foot-valve'],
  'rear-control-line': ['rear-relay', 'foot-valve'],
  'load-sensing': ['rear-relay', 'relay'],
  antilock: ['rear-relay', 'relay'],
  'park-line': ['park-relay', 'park-control'],
  'anti-compounding': ['park-relay'],
  'modulating-valve': ['park-relay'],
  'hand-valve': ['trailer-supply-control'],
  'foot-double-check': ['tractor-protection'],
  'hand-double-check': ['tractor-protection'],
  'trailer-supply-line': ['tractor-protection', 'trailer-control-valve'],
  'trailer-service-line': ['tractor-protection', 'trailer-control-valve'],
  'supply-line': ['supply-coupler'],
  'service-line': ['service-coupler'],
  drain: ['tank'],
  'tank-check': ['tank'],
  'spring-line': ['relay'],
};

/** What each part of a unit is folded into; itself where it stands alone. */
export function foldedInto(parts: readonly PlumbedPart[]): ReadonlyMap<string, string> {
  const has = new Set(parts.map(({ id }) => id));
  return new Map(
    parts.map(({ id }) => [id, (HOSTS[id] ?? []).find((host) => has.has(host)) ?? id]),
  );
}
