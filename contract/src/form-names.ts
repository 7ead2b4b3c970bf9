/** What is filled in before anybody is signed in: these checks come with the first screen. */
export const doorFormNames = ['signIn', 'firstLead'] as const;

/** The shapes that people fill in on later screens; their validators go to the browser as well. */
export const formNames = [
  'createPerson',
  'editPerson',
  'editShop',
  'unitDraft',
  'ruleSetDraft',
] as const;

export type DoorFormName = (typeof doorFormNames)[number];
export type FormName = (typeof formNames)[number];
