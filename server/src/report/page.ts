export const NOT_AN_INSPECTION =
  'This record advises; it does not replace the inspection your law asks for, made by those it licenses.';

export const INK = '#171c20';
export const QUIET = '#454e55';
export const RULE = '#cfc9bc';

/** A date and time as the shop has it, with the zone's own short name. */
export const sayMoment = (atMs: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZoneName: 'short',
    timeZone,
  }).format(atMs);
