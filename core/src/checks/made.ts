import type { PlumbedPart } from '../rig/plumbing/plumbing';
import type { RigUnderTest } from '../rig/rigUnderTest';
import type { NetElement, NetNode, Network } from '../twin/network/network';
import type { AnswerShape, Check } from './check';

/** What checks are made from. */
export interface Made {
  rig: RigUnderTest;
  network: Network;
  /** A towed unit by itself: the shop's air and valve stand for a truck. */
  isTowedAlone: boolean;
  tows: boolean;
  /** Parts by id, by unit from the front. */
  parts: readonly ReadonlyMap<string, PlumbedPart>[];
}

/** A check before it is known on which faults it bears. */
export type Bare = Omit<Check, 'bearsOn'>;

/** A place or way as it is called within its unit. */
export const callOf = ({ id, ...rest }: NetNode | NetElement): string => {
  const name = id.replace(/^#\d+ /, '').replace(/: /g, ' ');
  if (!('kind' in rest))
    return name.replace(/^(.*), (primary|secondary) exhaust$/, '$1’s $2 exhaust');
  if (rest.kind === 'service chamber') return `${name} chamber`;
  return rest.kind === 'spring chamber' ? `${name} side` : name;
};

export const psiShape = (spread: number, error = 1): AnswerShape => ({
  kind: 'number',
  unit: 'psi',
  resolution: 1,
  error,
  spread,
});

/** Where a part's title is wanted in a sentence. */
export function titleOf({ parts }: Made, unit: number, part: string): string {
  return (parts[unit]?.get(part)?.title ?? part).toLowerCase();
}

export const OPENING =
  'Let all air out before a fitting is opened, and chock the wheels: springs and hoses store force.';
export const UNDER =
  'Chock the wheels before anybody goes under. Keep hands clear of rods and slack adjusters.';
export const ROLL = 'Chock the wheels: the brakes are off.';
export const EYES = 'Wear eye protection: an exhaust throws out grit and water.';
