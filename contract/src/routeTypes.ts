/* Written from the server's routes by `npm run route-types`; a test holds it to them. */
import type { Static } from '@sinclair/typebox';
import type { check } from './check';
import type * as contract from './index';
import type { SchemaName } from './schemas';

type Shape<N extends SchemaName> = Extract<ReturnType<typeof check<N>>, { ok: true }>['value'];

/** A picture's bytes, as a browser hands them over. */
interface Picture {
  readonly type: string;
  readonly size: number;
}

/** Of every route: how and where it is asked below its version, what it takes, what it answers; never is no record. */
export type RouteTypes = [
  [`GET /set-up`, undefined, Static<typeof contract.SetUpSchema>],
  [`POST /set-up`, Shape<'firstLead'>, Static<typeof contract.MeSchema>],
  [`POST /sign-in`, Shape<'signIn'>, Static<typeof contract.MeSchema>],
  [`POST /sign-out`, undefined, undefined],
  [`GET /me`, undefined, Static<typeof contract.MeSchema>],
  [`POST /me/password`, Shape<'changePassword'>, Static<typeof contract.MeSchema>],
  [`POST /me/second-factor`, Shape<'ownPassword'>, Static<typeof contract.FactorOfferSchema>],
  [
    `POST /me/second-factor/confirm`,
    Shape<'confirmCode'>,
    Static<typeof contract.SpareCodesSchema>,
  ],
  [`POST /me/second-factor/off`, Shape<'ownPassword'>, undefined],
  [`GET /me/sessions`, undefined, Static<typeof contract.DeviceSessionsSchema>],
  [`DELETE /me/sessions/${string}`, undefined, undefined],
  [`POST /sign-out-everywhere`, undefined, undefined],
  [`PATCH /shop`, Shape<'editShop'>, Static<typeof contract.MeSchema>],
  [`GET /people`, undefined, Static<typeof contract.PeopleSchema>],
  [`POST /people`, Shape<'createPerson'>, Static<typeof contract.PersonSchema>],
  [`PATCH /people/${string}`, Shape<'editPerson'>, Static<typeof contract.PersonSchema>],
  [`GET /audit`, undefined, Static<typeof contract.AuditPageSchema>],
  [`GET /shop/export.jsonl`, undefined, never],
  [`GET /yard`, undefined, Static<typeof contract.YardRowsSchema>],
  [`GET /units`, undefined, Static<typeof contract.UnitsSchema>],
  [`GET /units/${string}`, undefined, Static<typeof contract.UnitSchema>],
  [`POST /units`, Shape<'createUnit'>, Static<typeof contract.UnitSchema>],
  [`PUT /units/${string}`, Shape<'editUnit'>, Static<typeof contract.UnitSchema>],
  [`POST /units/${string}/retire`, Shape<'retireUnit'>, Static<typeof contract.UnitSchema>],
  [`GET /drains`, undefined, Static<typeof contract.DrainRowsSchema>],
  [`GET /due.ics`, undefined, never],
  [`GET /grades`, undefined, Static<typeof contract.GradesTaughtSchema>],
  [`POST /units/${string}/pedal`, Shape<'callPedal'>, Static<typeof contract.PedalStandingSchema>],
  [
    `POST /units/${string}/pedal/heard`,
    Shape<'heardCall'>,
    Static<typeof contract.PedalStandingSchema>,
  ],
  [`GET /units/${string}/pedal/live`, undefined, never],
  [`POST /failures/close`, Shape<'closeFailure'>, Static<typeof contract.YardRowsSchema>],
  [`GET /rigs`, undefined, Static<typeof contract.RigsSchema>],
  [`POST /rigs`, Shape<'coupleRig'>, Static<typeof contract.RigSchema>],
  [`POST /rigs/${string}/uncouple`, Shape<'uncoupleRig'>, Static<typeof contract.RigSchema>],
  [`GET /rule-sets`, undefined, Static<typeof contract.RuleSetListSchema>],
  [`POST /rule-sets`, Shape<'copyRuleSet'>, Static<typeof contract.RuleSetSchema>],
  [`PUT /rule-sets/default`, Shape<'chooseRuleSet'>, Static<typeof contract.RuleSetListSchema>],
  [`PUT /rule-sets/${string}`, Shape<'editRuleSet'>, Static<typeof contract.RuleSetSchema>],
  [`POST /logs`, Shape<'openLog'>, Static<typeof contract.HeldSchema>],
  [`POST /logs/held`, Shape<'compareHeld'>, Static<typeof contract.HeldLogsSchema>],
  [`GET /logs/open`, undefined, Static<typeof contract.LogRowsSchema>],
  [`GET /units/${string}/visits`, undefined, Static<typeof contract.LogRowsSchema>],
  [`GET /units/${string}/found`, undefined, Static<typeof contract.FoundAtPartsSchema>],
  [`POST /logs/${string}/facts`, Shape<'appendFacts'>, Static<typeof contract.HeldSchema>],
  [`GET /logs/${string}`, undefined, Static<typeof contract.LogRecordSchema>],
  [`GET /logs/${string}/live`, undefined, never],
  [`GET /visits/${string}/report.pdf`, undefined, never],
  [`GET /visits/${string}/export.json`, undefined, never],
  [`GET /visits/${string}/export.csv`, undefined, never],
  [`GET /units/${string}/runs`, undefined, Static<typeof contract.RunRowsSchema>],
  [`GET /runs/${string}/report.pdf`, undefined, never],
  [`GET /runs/${string}/export.json`, undefined, never],
  [`GET /runs/${string}/export.csv`, undefined, never],
  [`PUT /photos/${string}`, Picture, Static<typeof contract.PhotoKeptSchema>],
  [`GET /photos/${string}`, undefined, never],
  [`GET /jobs`, undefined, Static<typeof contract.JobRowsSchema>],
  [`GET /jobs/parts.csv`, undefined, never],
  [`GET /jobs/${string}/blocks`, undefined, Static<typeof contract.BlocksSchema>],
  [`GET /jobs/${string}/release.pdf`, undefined, never],
  [`GET /jobs/${string}/share.html`, undefined, never],
  [`GET /jobs/${string}/export.json`, undefined, never],
  [`GET /lessons`, undefined, Static<typeof contract.LessonsSchema>],
  [`GET /lessons.csv`, undefined, never],
  [`POST /suspects/table`, Shape<'askTable'>, Static<typeof contract.SuspectTableSchema>],
  [`GET /units/${string}/gauges/live`, undefined, never],
];
