import type {
  AirDetails,
  ChamberType,
  FieldProblem,
  GaugeCheck,
  LineRecord,
  PartRecord,
  PressureUnit,
  TankRole,
  UnitDraft,
  UnitKind,
} from '@keen-bleed/contract';
import { checkForm } from '@keen-bleed/contract/forms';
import {
  checkUnit,
  hasCompressor,
  in3FromLitres,
  litresFromIn3,
  rounded,
  toPsi,
  fromPsi,
  recordsThatHold,
} from '@keen-bleed/core';

/** Whether a part is there: as on most such units, where nobody has looked. */
export type Fitted = 'usual' | 'fitted' | 'none';

/** What stands in the boxes of the form: text as typed, in the units the person chose. */
export interface UnitForm {
  number: string;
  registration: string;
  frameNumber: string;
  name: string;
  kind: UnitKind;
  buildYear: string;
  /** Whether the year is read off its plate; one that was only filled in decides nothing. */
  yearIs: 'read' | 'not-sure';
  buildMonth: string;
  /** On the plate, lb. */
  grossWeight: string;
  circuits: 'dual' | 'single';
  ports: 'words' | 'numbers';
  volumeUnit: 'in3' | 'L';
  tanks: { role: TankRole; volume: string }[];
  chambers: { type: ChamberType; count: string; springBrake: boolean; loadSensing: boolean }[];
  pressureUnit: PressureUnit;
  cutIn: string;
  cutOut: string;
  /** Each turn of the compressor, in `volumeUnit`; empty where it is not known. */
  displacement: string;
  turnsPerEngineTurn: string;
  clearancePercent: string;
  modulatingValve: Fitted;
  antiCompounding: Fitted;
  stopLampSwitches: 'usual' | 'two';
  lowAirSwitches: 'usual' | 'supply-tank';
  dryerPurge: 'usual' | 'service-tank';
  gaugeUnit: PressureUnit;
  gaugeDivision: string;
  gaugeTop: string;
  makerBuildUpS: string;
  makerCutOutMin: string;
  makerCutOutMax: string;
  makerCutInMin: string;
  makerStaticLeak: string;
  makerAppliedLeak: string;
  makerWarningMin: string;
  /** Comparisons with a master gauge go through the form as they are: they are made on the rig sheet. */
  gaugeChecks: GaugeCheck[];
  /** Kept as they are: parts are said on their own list. */
  parts: PartRecord[];
  lines: LineRecord[];
  testEveryDays: string;
}

const shown = (value: number | undefined, places = 2) =>
  value === undefined ? '' : rounded(value, places);

const fitted = (value: boolean | undefined): Fitted =>
  value === undefined ? 'usual' : value ? 'fitted' : 'none';

/** Puts a draft into the boxes. */
export function formOf(draft: UnitDraft, pressureUnit: PressureUnit): UnitForm {
  const pressure = (psi: number | undefined) =>
    psi === undefined ? '' : shown(fromPsi(psi, pressureUnit));
  const { makerLimits: maker, governor, gauge } = draft;
  const volumeUnit = pressureUnit === 'psi' ? 'in3' : 'L';
  const air = draft.air ?? {};
  return {
    number: draft.number,
    registration: draft.registration ?? '',
    frameNumber: draft.frameNumber ?? '',
    name: draft.name,
    kind: draft.kind,
    buildYear: String(draft.buildYear),
    yearIs: draft.buildYearUnsure ? 'not-sure' : 'read',
    buildMonth: draft.buildMonth === undefined ? '' : String(draft.buildMonth),
    grossWeight: shown(draft.grossLb, 0),
    circuits: draft.circuits,
    ports: draft.ports,
    volumeUnit,
    tanks: draft.tanks.map((tank) => ({
      role: tank.role,
      volume: shown(volumeUnit === 'L' ? litresFromIn3(tank.volumeIn3) : tank.volumeIn3),
    })),
    chambers: draft.chambers.map((group) => ({
      ...group,
      count: String(group.count),
      loadSensing: group.loadSensing ?? false,
    })),
    pressureUnit,
    cutIn: pressure(governor?.cutInPsi),
    cutOut: pressure(governor?.cutOutPsi),
    displacement: displacementText(air.compressorLPerTurn, volumeUnit),
    turnsPerEngineTurn: shown(air.compressorPerEngineTurn),
    clearancePercent:
      air.compressorClearance === undefined ? '' : shown(air.compressorClearance * 100),
    modulatingValve: fitted(air.modulatingValve),
    antiCompounding: fitted(air.antiCompounding),
    stopLampSwitches: air.stopLampSwitches === 'two' ? 'two' : 'usual',
    lowAirSwitches: air.lowAirSwitches === 'supply-tank' ? 'supply-tank' : 'usual',
    dryerPurge: air.dryerPurge === 'service-tank' ? 'service-tank' : 'usual',
    gaugeUnit: gauge.unit,
    gaugeDivision: shown(gauge.division),
    gaugeTop: shown(gauge.top),
    makerBuildUpS: shown(maker.buildUpMaxS),
    makerCutOutMin: pressure(maker.cutOutMinPsi),
    makerCutOutMax: pressure(maker.cutOutMaxPsi),
    makerCutInMin: pressure(maker.cutInMinPsi),
    makerStaticLeak: pressure(maker.staticLeakMaxPsiPerMin),
    makerAppliedLeak: pressure(maker.appliedLeakMaxPsiPerMin),
    makerWarningMin: pressure(maker.warningMinPsi),
    gaugeChecks: draft.gaugeChecks,
    parts: draft.parts ?? [],
    lines: draft.lines ?? [],
    testEveryDays: String(draft.testEveryDays),
  };
}

/** A displacement in the unit of the tanks' volumes; empty where it is not known. */
function displacementText(litres: number | undefined, unit: UnitForm['volumeUnit']): string {
  if (litres === undefined) return '';
  return shown(unit === 'L' ? litres : in3FromLitres(litres), unit === 'L' ? 3 : 1);
}

/** A number as people type it: a comma may stand for the point. Text that is none comes out as it is. */
function number(text: string): number | string {
  const trimmed = text.trim().replace(',', '.');
  const value = Number(trimmed);
  return trimmed === '' || Number.isNaN(value) ? text : value;
}

function converted(text: string, convert: (value: number) => number): number | string {
  const value = number(text);
  return typeof value === 'number' ? convert(value) : value;
}

/** Which box a path of the record belongs to, where the two are called differently. */
const boxOf: Readonly<Record<string, string>> = {
  governor: 'cutIn',
  'governor.cutInPsi': 'cutIn',
  'governor.cutOutPsi': 'cutOut',
  'gauge.division': 'gaugeDivision',
  'gauge.top': 'gaugeTop',
  'air.compressorLPerTurn': 'displacement',
  'air.compressorPerEngineTurn': 'turnsPerEngineTurn',
  'air.compressorClearance': 'clearancePercent',
  'makerLimits.buildUpMaxS': 'makerBuildUpS',
  'makerLimits.cutOutMinPsi': 'makerCutOutMin',
  'makerLimits.cutOutMaxPsi': 'makerCutOutMax',
  'makerLimits.cutInMinPsi': 'makerCutInMin',
  'makerLimits.staticLeakMaxPsiPerMin': 'makerStaticLeak',
  'makerLimits.appliedLeakMaxPsiPerMin': 'makerAppliedLeak',
  'makerLimits.warningMinPsi': 'makerWarningMin',
};

/** Problems by the name of the box they belong to. */
export function problemsByBox(problems: readonly FieldProblem[]): Record<string, string> {
  return Object.fromEntries(
    problems.map(({ field, message }) => {
      const path = field.replace(/^draft\./, '');
      return [
        boxOf[path] ?? path.replace('.volumeIn3', '.volume'),
        message.replace(/must be of type number/, 'must be a number'),
      ];
    }),
  );
}

const known = (key: keyof AirDetails, value: Fitted) =>
  value === 'usual' ? {} : { [key]: value === 'fitted' };

/** Reads the boxes: a draft that passes every check the server makes, or what is wrong with them. */
export function draftOf(form: UnitForm): { draft: UnitDraft } | { problems: FieldProblem[] } {
  const psi = (text: string) => converted(text, (value) => toPsi(value, form.pressureUnit));
  const volume = (text: string) =>
    converted(text, (value) =>
      form.volumeUnit === 'L' ? Math.round(in3FromLitres(value)) : value,
    );
  const given = (key: string, text: string, read: (text: string) => number | string) =>
    text.trim() === '' ? {} : { [key]: read(text) };
  const air = {
    ...given('compressorLPerTurn', form.displacement, (text) =>
      converted(text, (value) => (form.volumeUnit === 'L' ? value : litresFromIn3(value))),
    ),
    ...given('compressorPerEngineTurn', form.turnsPerEngineTurn, number),
    ...given('compressorClearance', form.clearancePercent, (text) =>
      converted(text, (value) => value / 100),
    ),
    ...known('modulatingValve', form.modulatingValve),
    ...known('antiCompounding', form.antiCompounding),
    ...(form.stopLampSwitches === 'two' ? { stopLampSwitches: 'two' } : {}),
    ...(form.lowAirSwitches === 'usual' ? {} : { lowAirSwitches: form.lowAirSwitches }),
    ...(form.dryerPurge === 'usual' ? {} : { dryerPurge: form.dryerPurge }),
  };
  const candidate = {
    number: form.number.trim(),
    name: form.name.trim(),
    ...given('registration', form.registration, (text) => text.trim()),
    ...given('frameNumber', form.frameNumber, (text) => text.trim()),
    kind: form.kind,
    buildYear: number(form.buildYear),
    ...given('buildMonth', form.buildMonth, number),
    ...(form.yearIs === 'not-sure' ? { buildYearUnsure: true as const } : {}),
    ...given('grossLb', form.grossWeight, number),
    circuits: form.circuits,
    ports: form.ports,
    tanks: form.tanks.map((tank) => ({
      role: tank.role,
      volumeIn3: volume(tank.volume),
    })),
    chambers: form.chambers.map(({ loadSensing, ...group }) => ({
      ...group,
      count: number(group.count),
      ...(loadSensing ? { loadSensing } : {}),
    })),
    governor: hasCompressor(form.kind)
      ? { cutInPsi: psi(form.cutIn), cutOutPsi: psi(form.cutOut) }
      : null,
    // Nothing is known of a unit that makes no air, or where every box is as usual.
    ...(hasCompressor(form.kind) && Object.keys(air).length > 0 ? { air } : {}),
    gauge: {
      unit: form.gaugeUnit,
      division: number(form.gaugeDivision),
      top: number(form.gaugeTop),
    },
    makerLimits: {
      ...given('buildUpMaxS', form.makerBuildUpS, number),
      ...given('cutOutMinPsi', form.makerCutOutMin, psi),
      ...given('cutOutMaxPsi', form.makerCutOutMax, psi),
      ...given('cutInMinPsi', form.makerCutInMin, psi),
      ...given('staticLeakMaxPsiPerMin', form.makerStaticLeak, psi),
      ...given('appliedLeakMaxPsiPerMin', form.makerAppliedLeak, psi),
      ...given('warningMinPsi', form.makerWarningMin, psi),
    },
    gaugeChecks: form.gaugeChecks,
    testEveryDays: number(form.testEveryDays),
  };
  const wrongShape = checkForm('unitDraft', candidate);
  if (wrongShape.length > 0) return { problems: wrongShape };
  const parts = recordsThatHold({ ...(candidate as UnitDraft), parts: form.parts });
  const draft = {
    ...candidate,
    ...(parts.length > 0 ? { parts } : {}),
    ...(form.lines.length > 0 ? { lines: form.lines } : {}),
  } as UnitDraft;
  const wrong = checkUnit(draft);
  return wrong.length > 0 ? { problems: wrong } : { draft };
}
