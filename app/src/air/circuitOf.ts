/** Which of the trade's three colours a place wears. */
export type Circuit = 'supply' | 'service' | 'park';

/** Circuit of a place by its name in the network. */
export function circuitOf(place: string): Circuit {
  if (/park|spring|hand brake/.test(place)) return 'park';
  if (place.includes('service')) return 'service';
  if (/tank|supply|dryer|discharge|purge|dash|governor|shop/.test(place)) return 'supply';
  return 'service';
}

/** What is worth drawing between two places: a seal that a sound rig does not have is not. */
export const isDrawn = (way: string): boolean => !/centre seal| on (supply|service)/.test(way);
