import { Type, type TSchema } from '@sinclair/typebox';
import { PartId } from '../part';
import { AtMs, Uuid } from '../primitives';
import { FactVersion, OffsetMs } from './fact';

export const logKindNames = ['run', 'visit', 'job'] as const;
/** Every kind of log there is. */
export type LogKindName = (typeof logKindNames)[number];

/** What a log is about. */
export interface Subject {
  /** The unit, or the one in front of the rig. */
  unitId: string;
  rigId: string | null;
  /** One part of that unit, or null for the whole. */
  partId: string | null;
}

/** What a log is fixed to when it is opened. It is never edited. */
export interface LogHeader<K extends LogKindName = LogKindName, M = unknown> {
  id: string;
  kind: K;
  /** Version of the shape of its kind. */
  v: number;
  subject: Subject;
  /** By the clock of the device that opened it. */
  startedAtMs: number;
  /** How far that clock was ahead of the server's; null where that is not known. */
  offsetMs: number | null;
  /** Version of the core that made what is asked in it. */
  coreVersion: string;
  /** What it is made on and what is asked, as it was. */
  made: M;
}

/** The header of a kind as a shape. */
export const headerOf = <K extends LogKindName, M extends TSchema>(kind: K, made: M) =>
  Type.Object(
    {
      id: Uuid('Log id'),
      kind: Type.Literal(kind),
      v: FactVersion,
      subject: Type.Object(
        {
          unitId: Uuid('Unit id'),
          rigId: Type.Union([Uuid('Rig id'), Type.Null()], { title: 'Rig' }),
          partId: Type.Union([PartId('Part'), Type.Null()], { title: 'Part' }),
        },
        { additionalProperties: false, title: 'Subject' },
      ),
      startedAtMs: AtMs('Started'),
      offsetMs: Type.Union([OffsetMs('Clock ahead by'), Type.Null()], { title: 'Clock ahead by' }),
      coreVersion: Type.String({ minLength: 1, maxLength: 20, title: 'Version of the arithmetic' }),
      made,
    },
    { additionalProperties: false },
  );
