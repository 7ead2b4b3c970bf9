import type { ChainStanding } from '@keen-bleed/contract';
import type { Content, DynamicContent } from 'pdfmake/interfaces';

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

/** Digits of a seal that are printed: enough to tell two records apart by eye. */
const SEAL_DIGITS = 16;

/** What a page says of the record it was made from: by its seal it can be compared with an export. */
export const saySeal = ({ head, brokenAt }: ChainStanding): string =>
  brokenAt === null
    ? `Seal of the record: ${head.slice(0, SEAL_DIGITS)}.`
    : `Entry ${brokenAt} of this record is not what was recorded: do not rely on this page.`;

/** The foot of every page: what it is not, its seal, and its number. */
export const pageFoot =
  (chain: ChainStanding): DynamicContent =>
  (page, pages): Content => ({
    margin: [42, 14, 42, 0],
    fontSize: 8,
    color: chain.brokenAt === null ? QUIET : INK,
    columns: [
      { text: `${NOT_AN_INSPECTION} ${saySeal(chain)}` },
      { text: `${page} of ${pages}`, alignment: 'right', width: 50 },
    ],
  });

/** Stands where a photo would be that is not there or cannot be drawn. */
export const NOT_DRAWN = 'A photo that cannot be shown';
