import { Type, type Static } from '@sinclair/typebox';
import { roles, type Role } from './choices';
import { Line, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;

const RoleSchema = Type.Unsafe<Role>({
  type: 'string',
  enum: [...roles],
  title: 'Role',
});
const SignInName = Type.String({
  minLength: 2,
  maxLength: 40,
  pattern: '^[A-Za-z0-9._-]+$',
  title: 'Sign-in name',
});
const NewPassword = Type.String({
  minLength: 10,
  maxLength: 200,
  title: 'Password',
});

/** A code of six digits from an app, or a spare one. */
const Code = Type.String({ minLength: 6, maxLength: 20, title: 'Code' });

export const SignInSchema = Type.Object(
  {
    signInName: Type.String({
      minLength: 1,
      maxLength: 40,
      title: 'Sign-in name',
    }),
    password: Type.String({ minLength: 1, maxLength: 200, title: 'Password' }),
    /** Asked for where a second factor is on. */
    code: Type.Optional(Code),
    /** The shop's name; asked for where a name is known in more than one. */
    shop: Type.Optional(Line('Shop', 60)),
  },
  { ...closed, title: 'Sign-in' },
);

/** A code, to show that the app which makes codes has been set up right. */
export const ConfirmCodeSchema = Type.Object({ code: Code }, { ...closed, title: 'Code' });

/** One's own password, to show that it is still oneself. */
export const OwnPasswordSchema = Type.Object(
  { password: Type.String({ minLength: 1, maxLength: 200, title: 'Password' }) },
  { ...closed, title: 'Own password' },
);

/** One's own password, changed by whoever knows the old one. */
export const ChangePasswordSchema = Type.Object(
  {
    old: Type.String({ minLength: 1, maxLength: 200, title: 'Old password' }),
    password: NewPassword,
  },
  { ...closed, title: 'New password' },
);
export type ChangePassword = Static<typeof ChangePasswordSchema>;

/** The first account of a new installation: a shop and its lead. */
export const FirstLeadSchema = Type.Object(
  {
    shopName: Line('Shop name', 60),
    name: Line('Name', 60),
    signInName: SignInName,
    password: NewPassword,
    /** Printed where the server was started: whoever finds the address first is not thereby its lead. */
    code: Type.Optional(Type.String({ minLength: 1, maxLength: 20, title: 'Set-up code' })),
    /** As the device that sets the shop up has it. */
    timeZone: Type.Optional(Line('Time zone', 60)),
  },
  { ...closed, title: 'First account' },
);

const Share = (title: string) => Type.Number({ minimum: 0, maximum: 0.9, title });
const HeardFrom = (title: string) => Type.Number({ minimum: 0.01, maximum: 10, title });

/** What ears, soap and eyes of a shop get wrong: shares, and from how much free air a leak is heard, scfm. */
export const SensesSchema = Type.Object(
  {
    heardQuietScfm: HeardFrom('Heard in a quiet yard'),
    heardRunningScfm: HeardFrom('Heard with an engine running'),
    /** Shares of what is there and not heard, and of silence in which something is heard. */
    missed: Share('Leaks not heard'),
    imagined: Share('Leaks heard where there are none'),
    soapMisses: Share('Leaks that soap misses'),
    /** Share of soap grades that are one step off. */
    soapOff: Share('Soap a grade off'),
    lookWrong: Share('Looks that are wrong'),
  },
  { ...closed, title: 'Ears, soap and eyes' },
);
export type Senses = Static<typeof SensesSchema>;

/** What a shop says of itself; a lead may change it. */
export const EditShopSchema = Type.Object(
  {
    name: Type.Optional(Line('Shop name', 60)),
    timeZone: Type.Optional(Line('Time zone', 60)),
    demo: Type.Optional(Type.Boolean({ title: 'Demo mode' })),
    /** A device that is not used for so long is signed out, minutes. */
    idleMinutes: Type.Optional(
      Type.Integer({ minimum: 15, maximum: 20_160, title: 'Sign out after' }),
    ),
    /** Null for the house's own figures. */
    senses: Type.Optional(Type.Union([SensesSchema, Type.Null()])),
  },
  { ...closed, minProperties: 1, title: 'Shop' },
);

export const CreatePersonSchema = Type.Object(
  {
    id: Uuid('Person id'),
    name: Line('Name', 60),
    signInName: SignInName,
    role: RoleSchema,
    password: NewPassword,
  },
  { ...closed, title: 'New person' },
);

export const EditPersonSchema = Type.Object(
  {
    role: Type.Optional(RoleSchema),
    active: Type.Optional(Type.Boolean({ title: 'Active' })),
    password: Type.Optional(NewPassword),
    /** Taken away from somebody who lost what makes their codes; only they can turn one on. */
    secondFactor: Type.Optional(Type.Literal(false, { title: 'Second factor' })),
  },
  { ...closed, minProperties: 1, title: 'Person edit' },
);

export type SignIn = Static<typeof SignInSchema>;
export type FirstLead = Static<typeof FirstLeadSchema>;
export type CreatePerson = Static<typeof CreatePersonSchema>;
export type EditShop = Static<typeof EditShopSchema>;
export type EditPerson = Static<typeof EditPersonSchema>;

const open = {} as const;

/** Who is signed in, as the app is told. */
export const MeSchema = Type.Object(
  {
    personId: Type.String(),
    shopId: Type.String(),
    name: Type.String(),
    signInName: Type.String(),
    role: RoleSchema,
    shopName: Type.String(),
    /** IANA name of the zone the shop's times are said in. */
    timeZone: Type.String(),
    /** Made-up sources, such as the simulated gauge set, may be used in runs that are kept. */
    demo: Type.Boolean(),
    /** What ears, soap and eyes get wrong here; nothing where the house's figures hold. */
    senses: Type.Optional(Type.Union([SensesSchema, Type.Null()])),
    /** A device that is not used for so long is signed out, minutes. */
    idleMinutes: Type.Integer(),
    /** Whether a code is asked for at their sign-in. */
    secondFactor: Type.Boolean(),
  },
  { ...open, title: 'Signed in' },
);
export type Me = Static<typeof MeSchema>;

export const PersonSchema = Type.Object(
  {
    id: Type.String(),
    name: Type.String(),
    signInName: Type.String(),
    role: RoleSchema,
    active: Type.Boolean(),
    /** Whether a code is asked for at their sign-in. */
    secondFactor: Type.Boolean(),
  },
  { ...open, title: 'Person' },
);
export const PeopleSchema = Type.Array(PersonSchema);
export type Person = Static<typeof PersonSchema>;

export const SetUpSchema = Type.Object(
  {
    needsFirstLead: Type.Boolean(),
    /** Whether the code that was printed at the server's start is asked for. */
    needsCode: Type.Boolean(),
  },
  { ...open, title: 'Set-up' },
);

/** A device on which somebody is signed in. */
export const DeviceSessionSchema = Type.Object(
  {
    id: Type.String(),
    /** The browser in a few words, as it says of itself. */
    device: Type.String(),
    signedInAtMs: Type.Number(),
    lastAtMs: Type.Number(),
    isThis: Type.Boolean(),
  },
  { ...open, title: 'Device' },
);
export const DeviceSessionsSchema = Type.Array(DeviceSessionSchema);
export type DeviceSession = Static<typeof DeviceSessionSchema>;

/** What an app that makes codes needs: as a picture to take, and in letters. */
export const FactorOfferSchema = Type.Object(
  {
    secret: Type.String(),
    uri: Type.String(),
    /** Modules of the QR code, row by row: `1` is dark. */
    rows: Type.Array(Type.String()),
  },
  { ...open, title: 'Second factor' },
);
export type FactorOffer = Static<typeof FactorOfferSchema>;

/** Codes for the day the phone is gone; shown once. */
export const SpareCodesSchema = Type.Object(
  { spare: Type.Array(Type.String()) },
  { ...open, title: 'Spare codes' },
);
export type SpareCodes = Static<typeof SpareCodesSchema>;
