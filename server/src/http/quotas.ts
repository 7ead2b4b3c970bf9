import { ApiError } from './apiError';

/** How much a shop may keep: wide enough for the largest, and a bound for a script that has run wild. */
export const QUOTAS = {
  units: 5_000,
  people: 500,
  photosOfLog: 300,
  photos: 50_000,
  /** Devices a person is signed in on; the one that was used longest ago is signed out first. */
  devices: 20,
} as const;

const NAMES = {
  units: 'units',
  people: 'people',
  photosOfLog: 'photos in this record',
  photos: 'photos',
} as const;

/** Refuses one more where a shop has as many as it may. */
export function requireRoom(of: keyof typeof NAMES, has: number): void {
  if (has < QUOTAS[of]) return;
  throw new ApiError(
    'quota-full',
    `There are ${QUOTAS[of].toLocaleString('en')} ${NAMES[of]}, as many as there may be. Whoever runs the server can make room.`,
  );
}
