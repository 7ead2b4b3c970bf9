import { Type, type Static } from '@sinclair/typebox';
import { chamberTypes, pressureUnits, tankRoles, unitKinds } from './choices';
import { LineRecordSchema, PartRecordSchema } from './part';
import { AtMs, Line, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;
const choice = <T extends string>(values: readonly T[], title: string) =>
  Type.Unsafe<T>({ type: 'string', enum: [...values], title });

/** One air tank; the volume is its rated inside volume in cubic inches. */
export const TankSchema = Type.Object(
  {
    role: choice(tankRoles, 'Tank'),
    volumeIn3: Type.Number({
      minimum: 50,
      maximum: 20_000,
      title: 'Tank volume',
    }),
  },
  closed,
);

/** Service chambers of one type; the type number is the diaphragm's area in square inches. */
export const ChamberGroupSchema = Type.Object(
  {
    type: choice(chamberTypes, 'Chamber type'),
    count: Type.Integer({
      minimum: 1,
      maximum: 24,
      title: 'How many chambers',
    }),
    springBrake: Type.Boolean({ title: 'With spring brake' }),
    loadSensing: Type.Optional(Type.Boolean({ title: 'With load-sensing valve' })),
  },
  closed,
);

export const GovernorSchema = Type.Object(
  {
    cutInPsi: Type.Number({
      minimum: 40,
      maximum: 180,
      title: 'Governor cut-in',
    }),
    cutOutPsi: Type.Number({
      minimum: 40,
      maximum: 180,
      title: 'Governor cut-out',
    }),
  },
  closed,
);

/**
 * What is known of a unit's air system beyond its tanks and chambers. What is left out is taken to be as it usually
 * is on such a unit.
 */
export const AirDetailsSchema = Type.Object(
  {
    compressorLPerTurn: Type.Optional(
      Type.Number({ minimum: 0.05, maximum: 2, title: 'Compressor displacement (L a turn)' }),
    ),
    compressorPerEngineTurn: Type.Optional(
      Type.Number({
        minimum: 0.2,
        maximum: 3,
        title: 'Compressor drive ratio (turns for one of the engine)',
      }),
    ),
    compressorClearance: Type.Optional(
      Type.Number({
        minimum: 0.01,
        maximum: 0.3,
        title: 'Compressor clearance (share of its swept volume)',
      }),
    ),
    modulatingValve: Type.Optional(Type.Boolean({ title: 'Spring brake modulating valve' })),
    antiCompounding: Type.Optional(Type.Boolean({ title: 'Anti-compounding' })),
    stopLampSwitches: Type.Optional(choice(['one', 'two'] as const, 'Stop-lamp switches')),
    lowAirSwitches: Type.Optional(
      choice(['each-tank', 'supply-tank'] as const, 'Low-air switches'),
    ),
    dryerPurge: Type.Optional(choice(['own-volume', 'service-tank'] as const, 'Dryer purge')),
  },
  { ...closed, title: 'Air system details' },
);

/** The dial in the cab: what one division is worth, and where the scale ends, in the dial's own unit. */
export const GaugeSchema = Type.Object(
  {
    unit: choice(pressureUnits, 'Gauge unit'),
    division: Type.Number({
      exclusiveMinimum: 0,
      maximum: 100,
      title: 'Gauge division',
    }),
    top: Type.Number({
      exclusiveMinimum: 0,
      maximum: 2_000,
      title: 'Top of the gauge',
    }),
  },
  closed,
);

/** Figures the vehicle's maker gives, which stand before those of the rule set. */
export const MakerLimitsSchema = Type.Object(
  {
    buildUpMaxS: Type.Optional(
      Type.Number({ minimum: 5, maximum: 900, title: "Maker's build-up time" }),
    ),
    cutOutMinPsi: Type.Optional(
      Type.Number({
        minimum: 40,
        maximum: 180,
        title: "Maker's lowest cut-out",
      }),
    ),
    cutOutMaxPsi: Type.Optional(
      Type.Number({
        minimum: 40,
        maximum: 180,
        title: "Maker's highest cut-out",
      }),
    ),
    cutInMinPsi: Type.Optional(
      Type.Number({
        minimum: 40,
        maximum: 180,
        title: "Maker's lowest cut-in",
      }),
    ),
    staticLeakMaxPsiPerMin: Type.Optional(
      Type.Number({
        minimum: 0.1,
        maximum: 20,
        title: "Maker's static leak limit",
      }),
    ),
    appliedLeakMaxPsiPerMin: Type.Optional(
      Type.Number({ minimum: 0.1, maximum: 20, title: "Maker's applied leak limit" }),
    ),
    warningMinPsi: Type.Optional(
      Type.Number({ minimum: 20, maximum: 120, title: "Maker's lowest warning" }),
    ),
  },
  closed,
);

/** A dash gauge held against a master gauge, at one pressure. */
export const GaugeCheckSchema = Type.Object(
  {
    gauge: choice(['primary', 'secondary', 'supply'] as const, 'Gauge checked'),
    dashPsi: Type.Number({ minimum: 10, maximum: 300, title: 'Dash gauge reading' }),
    masterPsi: Type.Number({ minimum: 10, maximum: 300, title: 'Master gauge reading' }),
    atMs: AtMs('Checked at'),
  },
  { ...closed, title: 'Gauge check' },
);

const unitFields = {
  number: Line('Unit number', 12),
  name: Line('What it is', 40),
  /** Plate, and the number stamped in the frame. */
  registration: Type.Optional(Line('Registration', 16)),
  frameNumber: Type.Optional(Line('Frame number', 32)),
  kind: choice(unitKinds, 'Kind'),
  buildYear: Type.Integer({
    minimum: 1950,
    maximum: 2100,
    title: 'Build year',
  }),
  buildMonth: Type.Optional(Type.Integer({ minimum: 1, maximum: 12, title: 'Build month' })),
  /** The year was filled in and nobody looked: nothing is decided by it. */
  buildYearUnsure: Type.Optional(Type.Literal(true, { title: 'Build year not sure' })),
  /** Gross weight on the plate, lb. */
  grossLb: Type.Optional(Type.Number({ minimum: 1_000, maximum: 400_000, title: 'Gross weight' })),
  circuits: choice(['dual', 'single'] as const, 'Circuits'),
  ports: choice(['words', 'numbers'] as const, 'Port names'),
  tanks: Type.Array(TankSchema, { minItems: 1, maxItems: 12, title: 'Tanks' }),
  chambers: Type.Array(ChamberGroupSchema, {
    minItems: 1,
    maxItems: 8,
    title: 'Chambers',
  }),
  governor: Type.Union([GovernorSchema, Type.Null()], { title: 'Governor' }),
  air: Type.Optional(AirDetailsSchema),
  /** Parts that somebody looked at; all others are as is usual, and not confirmed. */
  parts: Type.Optional(Type.Array(PartRecordSchema, { maxItems: 120, title: 'Parts' })),
  /** Lines that somebody looked at: where their ends are, where that is not the usual. */
  lines: Type.Optional(Type.Array(LineRecordSchema, { maxItems: 160, title: 'Lines' })),
  gauge: GaugeSchema,
  makerLimits: MakerLimitsSchema,
  gaugeChecks: Type.Array(GaugeCheckSchema, { maxItems: 6, title: 'Gauge checks' }),
  testEveryDays: Type.Integer({
    minimum: 1,
    maximum: 730,
    title: 'Days between tests',
  }),
};

/** What a person fills in about a unit. */
export const UnitDraftSchema = Type.Object(unitFields, {
  ...closed,
  title: 'Unit',
});

/** A unit as kept: the draft with its identity and its revision, which counts its edits. */
export const UnitSchema = Type.Object(
  {
    id: Uuid('Unit id'),
    revision: Type.Integer({ minimum: 1, title: 'Revision' }),
    retiredAtMs: Type.Union([AtMs('Retired at'), Type.Null()]),
    ...unitFields,
  },
  { ...closed, title: 'Unit' },
);

export const CreateUnitSchema = Type.Object(
  { id: Uuid('Unit id'), draft: UnitDraftSchema },
  { ...closed, title: 'New unit' },
);

/** An edit names the revision it started from, so that two editors cannot overwrite each other unseen. */
export const EditUnitSchema = Type.Object(
  {
    revision: Type.Integer({ minimum: 1, title: 'Revision' }),
    draft: UnitDraftSchema,
  },
  { ...closed, title: 'Unit edit' },
);

export const RetireUnitSchema = Type.Object(
  { retired: Type.Boolean({ title: 'Retired' }) },
  { ...closed, title: 'Retire unit' },
);

export type Tank = Static<typeof TankSchema>;
export type ChamberGroup = Static<typeof ChamberGroupSchema>;
export type Governor = Static<typeof GovernorSchema>;
export type AirDetails = Static<typeof AirDetailsSchema>;
export type Gauge = Static<typeof GaugeSchema>;
export type GaugeCheck = Static<typeof GaugeCheckSchema>;
export type MakerLimits = Static<typeof MakerLimitsSchema>;
export type UnitDraft = Static<typeof UnitDraftSchema>;
export type Unit = Static<typeof UnitSchema>;
export type CreateUnit = Static<typeof CreateUnitSchema>;
export type EditUnit = Static<typeof EditUnitSchema>;
