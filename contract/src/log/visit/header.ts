import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../../primitives';
import { UnitSchema } from '../../unit';
import { headerOf, type LogHeader } from '../header';

/** What a visit is fixed to: the units as they were, so that a part it names keeps its meaning. */
const VisitMadeSchema = Type.Object(
  {
    /** The unit, or the rig front to rear. */
    units: Type.Array(UnitSchema, { minItems: 1, maxItems: 6, title: 'Units' }),
    /** Why the rig is looked at, where that was said. */
    reason: Type.Union([Line('Reason', 120), Type.Null()], { title: 'Reason' }),
  },
  { additionalProperties: false, title: 'Visit' },
);

export const VisitHeaderSchema = headerOf('visit', VisitMadeSchema);
export type VisitMade = Static<typeof VisitMadeSchema>;
export type VisitHeader = LogHeader<'visit', VisitMade>;
