import { Type, type Static } from '@sinclair/typebox';

/** What the audit trail keeps, by the word that is kept; in the order in which a screen offers them. */
export const auditedActs = [
  'signed-in',
  'refused',
  'signed-out',
  'session-ended',
  'password',
  'second-factor',
  'recovered',
  'person-added',
  'role',
  'deactivated',
  'activated',
  'shop',
  'unit-added',
  'unit-edited',
  'unit-retired',
  'rule-set',
  'exported',
] as const;
export type AuditedAct = (typeof auditedActs)[number];

const AuditRowSchema = Type.Object(
  {
    id: Type.String(),
    atMs: Type.Number(),
    by: Type.String(),
    what: Type.Unsafe<AuditedAct>({ type: 'string', enum: [...auditedActs] }),
    about: Type.String(),
    address: Type.String(),
  },
  { title: 'Audit entry' },
);
export type AuditRow = Static<typeof AuditRowSchema>;

/** A page of the audit trail, newest first. */
export const AuditPageSchema = Type.Object(
  {
    rows: Type.Array(AuditRowSchema),
    /** Where the next page begins; null at the end. */
    next: Type.Union([Type.String(), Type.Null()]),
  },
  { title: 'Audit trail' },
);
export type AuditPage = Static<typeof AuditPageSchema>;

/** From where on a list is read: the id that the page before ended with. */
export const PageQuerySchema = Type.Object(
  { after: Type.Optional(Type.String({ format: 'uuid', title: 'After' })) },
  { additionalProperties: false, title: 'Page' },
);
export type PageQuery = Static<typeof PageQuerySchema>;
