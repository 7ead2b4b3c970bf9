import { fieldError } from '../http/fieldError';

/** A time zone by its IANA name, as the product knows it; throws where there is none such. */
export function knownZone(zone = 'UTC'): string {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    throw fieldError('timeZone', `“${zone}” is no time zone: give one such as Europe/London.`);
  }
}
