import { Type } from '@sinclair/typebox';
import type { JobFact } from './job/fact';
import { JobHeaderSchema, type JobHeader } from './job/header';
import type { RunFact } from './run/fact';
import { RunHeaderSchema, type RunHeader } from './run/header';
import type { VisitFact } from './visit/fact';
import { VisitHeaderSchema, type VisitHeader } from './visit/header';

/** The header and the facts of each kind of log. A new kind is one line here and a folder beside. */
export interface LogShapes {
  run: { header: RunHeader; fact: RunFact };
  visit: { header: VisitHeader; fact: VisitFact };
  job: { header: JobHeader; fact: JobFact };
}

/** A header of any kind. */
export type AnyHeader = LogShapes[keyof LogShapes]['header'];
/** A fact of any kind. */
export type AnyFact = LogShapes[keyof LogShapes]['fact'];

/** A request to open a log; sending it again changes nothing. */
export const OpenLogSchema = Type.Unsafe<AnyHeader>({
  type: 'object',
  title: 'New log',
  discriminator: { propertyName: 'kind' },
  oneOf: [RunHeaderSchema, VisitHeaderSchema, JobHeaderSchema],
});
