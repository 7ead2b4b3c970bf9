/** Which of the trade's three colours a place wears. */
export type Circuit = 'supply' | 'service' | 'park';

/** Circuit of a place by what it is. */
export function circuitOf(role: string): Circuit {
  if (/park|spring|hand brake/.test(role)) return 'park';
  if (role.includes('service')) return 'service';
  if (/tank|supply|dryer|discharge|purge|dash|governor|shop/.test(role)) return 'supply';
  return 'service';
}

/** What is worth drawing between two places: a seal that a sound rig does not have is not. */
export const isDrawn = (way: string): boolean =>
  !/ centre seal$| on (supply|service) coupler$/.test(way);
