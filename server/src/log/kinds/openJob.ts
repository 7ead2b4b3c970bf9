import type { JobHeader } from '@keen-bleed/contract';
import { notFound } from '../../http/apiError';
import { fieldError } from '../../http/fieldError';
import { unitsAsKept } from '../../units/unitRevisions';
import type { Opener } from '../openLog';

/** A job: the units as the shop kept them, so that what a replacement must match is theirs. */
export const openJob: Opener = async (db, me, sent) => {
  const header = sent as JobHeader;
  const { made, subject } = header;
  const ids = new Set(made.units.map(({ id }) => id.toLowerCase()));
  if (!ids.has(subject.unitId.toLowerCase())) {
    throw fieldError('subject.unitId', 'The unit of the job must be one of its units.');
  }
  const stranger = made.foundOn.findIndex((id) => !ids.has(id.toLowerCase()));
  if (stranger >= 0) {
    throw fieldError(`made.foundOn.${stranger}`, 'It must have been found on a unit of the job.');
  }
  const [unit, ...towed] = await unitsAsKept(db, me.shopId, made.units, (at) => `made.units.${at}`);
  if (!unit) throw notFound('unit');
  const units = [unit, ...towed];
  const foundOn = made.foundOn.map((id) => id.toLowerCase());
  return { header: { ...header, made: { ...made, foundOn, units } }, units: [unit, ...towed] };
};
