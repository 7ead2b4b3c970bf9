/** The shapes that people fill in on a screen; their validators go to the browser. */
export const formNames = [
  'signIn',
  'firstLead',
  'createPerson',
  'editPerson',
  'editShop',
  'unitDraft',
  'ruleSetDraft',
] as const;

export type FormName = (typeof formNames)[number];
