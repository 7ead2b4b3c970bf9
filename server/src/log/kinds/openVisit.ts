import type { VisitHeader } from '@keen-bleed/contract';
import { notFound } from '../../http/apiError';
import { fieldError } from '../../http/fieldError';
import { unitsAsKept } from '../../units/unitRevisions';
import type { Opener } from '../openLog';

/** A visit: the units as the shop kept them, so that every part it names is one of theirs. */
export const openVisit: Opener = async (db, me, sent) => {
  const header = sent as VisitHeader;
  if (header.made.units[0]?.id !== header.subject.unitId) {
    throw fieldError('made.units.0.id', 'The unit in front must be the unit of the visit.');
  }
  const [unit, ...towed] = await unitsAsKept(
    db,
    me.shopId,
    header.made.units,
    (at) => `made.units.${at}`,
  );
  if (!unit) throw notFound('unit');
  const units = [unit, ...towed];
  return { header: { ...header, made: { ...header.made, units } }, units: [unit, ...towed] };
};
