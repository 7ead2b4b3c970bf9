import type { FieldProblem, UnitDraft } from '@keen-bleed/contract';
import { fromPsi } from '../units/pressure';
import { hasCompressor } from './hasCompressor';

/**
 * What no single field's schema can say about a unit: how its fields stand to each other. Both the form
 * and the server ask this after the schema has passed.
 *
 * @returns one problem per wrong field, each saying what would be right
 */
export function checkUnit(unit: UnitDraft): FieldProblem[] {
  return [
    ...governorProblems(unit),
    ...tankProblems(unit),
    ...gaugeProblems(unit),
    ...makerProblems(unit),
    ...partProblems(unit),
  ];
}

function partProblems(unit: UnitDraft): FieldProblem[] {
  return (unit.parts ?? []).flatMap(({ partId }, at, all) => {
    const field = `parts.${at}.partId`;
    return all.findIndex((each) => each.partId === partId) < at
      ? [{ field, message: `“${partId}” stands twice among the parts: once is enough.` }]
      : [];
  });
}

function governorProblems({ kind, governor }: UnitDraft): FieldProblem[] {
  if (!hasCompressor(kind)) {
    return governor
      ? [
          {
            field: 'governor',
            message: `A ${kind} has no governor: leave it out.`,
          },
        ]
      : [];
  }
  if (!governor) {
    return [
      {
        field: 'governor',
        message: 'Give the governor cut-in and cut-out, such as 100 and 120 psi.',
      },
    ];
  }
  if (governor.cutInPsi >= governor.cutOutPsi) {
    return [
      {
        field: 'governor.cutInPsi',
        message: `Cut-in must be below cut-out; ${governor.cutInPsi} is not below ${governor.cutOutPsi} psi.`,
      },
    ];
  }
  return [];
}

function tankProblems({ kind, circuits, tanks }: UnitDraft): FieldProblem[] {
  const roles = new Set(tanks.map((tank) => tank.role));
  if (!hasCompressor(kind)) {
    return roles.has('trailer')
      ? []
      : [
          {
            field: 'tanks',
            message: `A ${kind} needs its own tank: add one as trailer tank.`,
          },
        ];
  }
  const missing = (['primary', ...(circuits === 'dual' ? ['secondary'] : [])] as const).filter(
    (role) => !roles.has(role as 'primary'),
  );
  return missing.map((role) => ({
    field: 'tanks',
    message: `With ${circuits} circuits there must be a ${role} tank.`,
  }));
}

function gaugeProblems({ gauge, governor }: UnitDraft): FieldProblem[] {
  if (gauge.division >= gauge.top / 4) {
    return [
      {
        field: 'gauge.division',
        message: `One division must be small beside the scale; ${gauge.division} of ${gauge.top} ${gauge.unit} is not.`,
      },
    ];
  }
  const neededTop = governor ? fromPsi(governor.cutOutPsi, gauge.unit) : 0;
  if (gauge.top < neededTop) {
    return [
      {
        field: 'gauge.top',
        message: `The gauge must reach cut-out: at least ${neededTop.toFixed(1)} ${gauge.unit}.`,
      },
    ];
  }
  return [];
}

function makerProblems({ makerLimits: maker }: UnitDraft): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const { cutOutMinPsi, cutOutMaxPsi, cutInMinPsi } = maker;
  if (cutOutMinPsi !== undefined && cutOutMaxPsi !== undefined && cutOutMinPsi >= cutOutMaxPsi) {
    problems.push({
      field: 'makerLimits.cutOutMinPsi',
      message: `The lowest cut-out must be below the highest, ${cutOutMaxPsi} psi.`,
    });
  }
  if (cutInMinPsi !== undefined && cutOutMaxPsi !== undefined && cutInMinPsi >= cutOutMaxPsi) {
    problems.push({
      field: 'makerLimits.cutInMinPsi',
      message: `The lowest cut-in must be below the highest cut-out, ${cutOutMaxPsi} psi.`,
    });
  }
  return problems;
}
