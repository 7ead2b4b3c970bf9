import { Type, type Static } from '@sinclair/typebox';
import { AtMs, Line } from '../../primitives';
import { UnitSchema } from '../../unit';
import { ExportedChainSchema } from '../chain';
import { headerOf, type LogHeader } from '../header';
import { VisitFactSchema } from './fact';

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

/** A visit as it leaves the product: every fact, who wrote in each lane, and what it is not. */
export const VisitExportSchema = Type.Object(
  {
    format: Type.Literal('keen-bleed/visit/1'),
    header: VisitHeaderSchema,
    by: Type.String(),
    /** Who wrote in each lane, by name. */
    writers: Type.Record(Type.String(), Type.String(), { title: 'Writers' }),
    /** By the server's clock, as far as the device's offset is known. */
    startedAtMs: AtMs('Started'),
    closedAtMs: Type.Union([AtMs('Closed'), Type.Null()]),
    timeUnsure: Type.Boolean({ title: 'Time not sure' }),
    facts: Type.Array(VisitFactSchema),
    /** Absent in exports of earlier versions. */
    chain: Type.Optional(ExportedChainSchema),
    caution: Type.String({ title: 'What this record is not' }),
  },
  { additionalProperties: false, title: 'Visit export', $id: 'keen-bleed-visit-export-1' },
);
export type VisitExport = Static<typeof VisitExportSchema>;
