import { CloseFailureSchema } from './failure';
import { PageQuerySchema } from './audit';
import {
  ChangePasswordSchema,
  ConfirmCodeSchema,
  CreatePersonSchema,
  EditPersonSchema,
  EditShopSchema,
  FirstLeadSchema,
  OwnPasswordSchema,
  SignInSchema,
} from './account';
import { AppendFactsSchema, CompareHeldSchema, HeldLogsSchema, HeldSchema } from './log/fact';
import { PhotoQuerySchema } from './log/answers';
import { OpenLogSchema } from './log/kinds';
import { JobFactSchema } from './log/job/fact';
import { RunFactSchema } from './log/run/fact';
import { RunExportSchema } from './log/run/header';
import { VisitExportSchema } from './log/visit/header';
import { VisitFactSchema } from './log/visit/fact';
import { OutcomeSchema } from './outcome';
import { CallPedalSchema, HeardCallSchema } from './pedalCall';
import { AskTableSchema, CoupleRigSchema, UncoupleRigSchema } from './rig';
import {
  ChooseRuleSetSchema,
  CopyRuleSetSchema,
  EditRuleSetSchema,
  RuleSetDraftSchema,
} from './ruleSet';
import { CreateUnitSchema, EditUnitSchema, RetireUnitSchema, UnitDraftSchema } from './unit';

/** Every shape that is checked at a border, by the name its compiled validator has. */
export const schemas = {
  signIn: SignInSchema,
  changePassword: ChangePasswordSchema,
  confirmCode: ConfirmCodeSchema,
  ownPassword: OwnPasswordSchema,
  pageQuery: PageQuerySchema,
  firstLead: FirstLeadSchema,
  createPerson: CreatePersonSchema,
  editPerson: EditPersonSchema,
  editShop: EditShopSchema,
  unitDraft: UnitDraftSchema,
  createUnit: CreateUnitSchema,
  editUnit: EditUnitSchema,
  retireUnit: RetireUnitSchema,
  coupleRig: CoupleRigSchema,
  uncoupleRig: UncoupleRigSchema,
  askTable: AskTableSchema,
  callPedal: CallPedalSchema,
  heardCall: HeardCallSchema,
  ruleSetDraft: RuleSetDraftSchema,
  copyRuleSet: CopyRuleSetSchema,
  editRuleSet: EditRuleSetSchema,
  chooseRuleSet: ChooseRuleSetSchema,
  closeFailure: CloseFailureSchema,
  openLog: OpenLogSchema,
  appendFacts: AppendFactsSchema,
  compareHeld: CompareHeldSchema,
  held: HeldSchema,
  heldLogs: HeldLogsSchema,
  photoQuery: PhotoQuerySchema,
  runFact: RunFactSchema,
  visitFact: VisitFactSchema,
  jobFact: JobFactSchema,
  outcome: OutcomeSchema,
  runExport: RunExportSchema,
  visitExport: VisitExportSchema,
} as const;

export type SchemaName = keyof typeof schemas;
