import { CreatePersonSchema, EditPersonSchema, FirstLeadSchema, SignInSchema } from './account';
import { RunEventSchema } from './event';
import { OutcomeSchema } from './outcome';
import { CoupleRigSchema, UncoupleRigSchema } from './rig';
import {
  ChooseRuleSetSchema,
  CopyRuleSetSchema,
  EditRuleSetSchema,
  RuleSetDraftSchema,
} from './ruleSet';
import { AppendEventsSchema, OpenRunSchema, RunExportSchema } from './run';
import { CreateUnitSchema, EditUnitSchema, RetireUnitSchema, UnitDraftSchema } from './unit';

/** Every shape that is checked at a border, by the name its compiled validator has. */
export const schemas = {
  signIn: SignInSchema,
  firstLead: FirstLeadSchema,
  createPerson: CreatePersonSchema,
  editPerson: EditPersonSchema,
  unitDraft: UnitDraftSchema,
  createUnit: CreateUnitSchema,
  editUnit: EditUnitSchema,
  retireUnit: RetireUnitSchema,
  coupleRig: CoupleRigSchema,
  uncoupleRig: UncoupleRigSchema,
  ruleSetDraft: RuleSetDraftSchema,
  copyRuleSet: CopyRuleSetSchema,
  editRuleSet: EditRuleSetSchema,
  chooseRuleSet: ChooseRuleSetSchema,
  openRun: OpenRunSchema,
  appendEvents: AppendEventsSchema,
  runEvent: RunEventSchema,
  outcome: OutcomeSchema,
  runExport: RunExportSchema,
} as const;

export type SchemaName = keyof typeof schemas;
