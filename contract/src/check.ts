import type { CloseFailure } from './failure';
import validators from '../generated/validators.cjs';
import type {
  ChangePassword,
  CreatePerson,
  EditPerson,
  EditShop,
  FirstLead,
  SignIn,
} from './account';
import type { PageQuery } from './audit';
import type { FieldProblem } from './errors';
import { problemsOf } from './problem-in-words';
import type { LogShapes, AnyHeader } from './log/kinds';
import type { Outcome } from './outcome';
import type { CallPedal, HeardCall } from './pedalCall';
import type { AskTable, CoupleRig, UncoupleRig } from './rig';
import type { CopyRuleSet, EditRuleSet, RuleSetDraft } from './ruleSet';
import type { AppendFacts, CompareHeld, Held, HeldLogs } from './log/types';
import type { RunExport } from './log/run/header';
import type { VisitExport } from './log/visit/header';
import type { SchemaName } from './schemas';
import type { CreateUnit, EditUnit, UnitDraft } from './unit';

interface Shapes {
  changePassword: ChangePassword;
  confirmCode: { code: string };
  ownPassword: { password: string };
  pageQuery: PageQuery;
  signIn: SignIn;
  firstLead: FirstLead;
  createPerson: CreatePerson;
  editPerson: EditPerson;
  editShop: EditShop;
  unitDraft: UnitDraft;
  createUnit: CreateUnit;
  editUnit: EditUnit;
  retireUnit: { retired: boolean };
  coupleRig: CoupleRig;
  uncoupleRig: UncoupleRig;
  askTable: AskTable;
  callPedal: CallPedal;
  heardCall: HeardCall;
  ruleSetDraft: RuleSetDraft;
  copyRuleSet: CopyRuleSet;
  editRuleSet: EditRuleSet;
  chooseRuleSet: { ruleSetId: string };
  closeFailure: CloseFailure;
  openLog: AnyHeader;
  appendFacts: AppendFacts;
  compareHeld: CompareHeld;
  held: Held;
  heldLogs: HeldLogs;
  photoQuery: { logId: string };
  runFact: LogShapes['run']['fact'];
  visitFact: LogShapes['visit']['fact'];
  jobFact: LogShapes['job']['fact'];
  outcome: Outcome;
  runExport: RunExport;
  visitExport: VisitExport;
}

export type Checked<T> = { ok: true; value: T } | { ok: false; fields: FieldProblem[] };

/**
 * Checks a value against a named schema.
 *
 * @param name which shape is meant
 * @param value anything, usually a parsed request body
 * @returns the value with its type, or one problem per wrong field, each saying what would be right
 */
export function check<N extends SchemaName>(name: N, value: unknown): Checked<Shapes[N]> {
  const fields = problemsOf(validators[name], value);
  return fields.length === 0 ? { ok: true, value: value as Shapes[N] } : { ok: false, fields };
}
