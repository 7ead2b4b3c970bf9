import { Type, type Static } from '@sinclair/typebox';
import { couplings, figureIds, figureUnits, limitTags, needs, schools, unitKinds } from './choices';
import { Line } from './primitives';

const closed = { additionalProperties: false } as const;
const oneOf = <T extends string>(values: readonly T[], title: string) =>
  Type.Unsafe<T>({ type: 'string', enum: [...values], title });
const bound = (title: string) =>
  Type.Union([Type.Number({ minimum: 0, maximum: 5_000, title }), Type.Null()], { title });

const Month = (title: string) => Type.String({ pattern: '^[0-9]{4}-(0[1-9]|1[0-2])$', title });

/** One limit of a rule set: the figure it bounds, where it applies, and where it comes from. */
export const LimitSchema = Type.Object(
  {
    id: Line('Limit', 60),
    figure: oneOf(figureIds, 'Figure'),
    unit: oneOf(figureUnits, 'Unit of the limit'),
    min: bound('Not under'),
    max: bound('Not over'),
    kinds: Type.Array(oneOf(unitKinds, 'Kind'), { minItems: 1, title: 'Kinds' }),
    circuits: Type.Array(oneOf(['dual', 'single'] as const, 'Circuits'), {
      minItems: 1,
      title: 'Circuits',
    }),
    coupled: Type.Array(oneOf(couplings, 'Coupled'), { minItems: 1, title: 'Coupled' }),
    source: Line('Source', 200),
    tag: oneOf(limitTags, 'Kind of source'),
    /** Applies to units built from this month on, or before it; to all where neither is said. */
    builtFrom: Type.Optional(Month('Built from')),
    builtBefore: Type.Optional(Month('Built before')),
    /** Moved by what is known of the unit: its governor's plate, or its tanks beside those the law asks for. */
    follows: Type.Optional(oneOf(['plate', 'reservoirs', 'half-cut-out'] as const, 'Follows')),
    /** Where the weight of the vehicle decides, at most or over 10,000 lb. */
    weight: Type.Optional(oneOf(['to-10000-lb', 'over-10000-lb'] as const, 'Gross weight')),
  },
  { ...closed, title: 'Limit' },
);

/** A step of a rule set, in its place, and whether it must be done. */
export const RuleStepSchema = Type.Object(
  {
    stepId: Line('Step', 40),
    need: oneOf(needs, 'Needed'),
    /** Whether what fails in it takes the vehicle out of service; as is usual for the step where it is not said. */
    critical: Type.Optional(Type.Boolean({ title: 'Out of service' })),
  },
  { ...closed, title: 'Step' },
);

/** Where practitioners disagree; each has a default and a reason in `core/standards`. */
export const SwitchesSchema = Type.Object(
  {
    popOutTo: oneOf(['45', '40'] as const, 'Pop-out window'),
    heldBy: oneOf(['chocks', 'low-gear'] as const, 'Secured by'),
    leakTests: oneOf(['both', 'applied-only'] as const, 'Leak tests'),
    gauges: oneOf(['one', 'both'] as const, 'Gauges read in a hold'),
    order: oneOf(['leak-first', 'warning-first'] as const, 'Order'),
    /** Which of the two views heads its verdicts; how sure where it is not said. */
    headedBy: Type.Optional(oneOf(['as-read', 'how-sure'] as const, 'Verdicts go by')),
  },
  { ...closed, title: 'Switches' },
);

/** A thing a shop looks at on the same round, with the figure it usually holds it to. */
export const ShopLookSchema = Type.Object(
  {
    key: Type.String({ pattern: '^[a-z0-9]+(-[a-z0-9]+)*$', maxLength: 40, title: 'Key' }),
    ask: Line('What is looked at', 60),
    usual: Type.Optional(Line('Usual', 60)),
  },
  { ...closed, title: 'Look' },
);

const ruleSetFields = {
  title: Line('Name of the rule set', 60),
  school: oneOf(schools, 'Wording'),
  limits: Type.Array(LimitSchema, { maxItems: 120, title: 'Limits' }),
  steps: Type.Array(RuleStepSchema, { minItems: 2, maxItems: 40, title: 'Steps' }),
  switches: SwitchesSchema,
  /** The shop's own list of looks; asked where the rule set has its step. */
  looks: Type.Optional(Type.Array(ShopLookSchema, { maxItems: 60, title: 'Own looks' })),
};

/** What a lead changes in a copied rule set. */
export const RuleSetDraftSchema = Type.Object(ruleSetFields, { ...closed, title: 'Rule set' });

/** A rule set as a run keeps it: the whole of it, so that a later edit changes no record. */
export const RuleSetSchema = Type.Object(
  {
    id: Line('Rule set', 40),
    revision: Type.Integer({ minimum: 1, title: 'Revision' }),
    /** The shipped one it was copied from; null for a shipped one. */
    basedOn: Type.Union([Line('Copied from', 40), Type.Null()]),
    ...ruleSetFields,
  },
  { ...closed, title: 'Rule set' },
);

/** A copy of a rule set, under an id the client made. */
export const CopyRuleSetSchema = Type.Object(
  {
    id: Type.String({ format: 'uuid', title: 'Rule set id' }),
    basedOn: Line('Copied from', 40),
    draft: RuleSetDraftSchema,
  },
  { ...closed, title: 'New rule set' },
);

/** An edit names the revision it started from. */
export const EditRuleSetSchema = Type.Object(
  { revision: Type.Integer({ minimum: 1, title: 'Revision' }), draft: RuleSetDraftSchema },
  { ...closed, title: 'Rule set edit' },
);

export const ChooseRuleSetSchema = Type.Object(
  { ruleSetId: Line('Rule set', 40) },
  { ...closed, title: 'Choice of rule set' },
);

export type Limit = Static<typeof LimitSchema>;
export type RuleStep = Static<typeof RuleStepSchema>;
export type ShopLook = Static<typeof ShopLookSchema>;
export type Switches = Static<typeof SwitchesSchema>;
export type RuleSetDraft = Static<typeof RuleSetDraftSchema>;
export type RuleSet = Static<typeof RuleSetSchema>;
export type CopyRuleSet = Static<typeof CopyRuleSetSchema>;
export type EditRuleSet = Static<typeof EditRuleSetSchema>;
