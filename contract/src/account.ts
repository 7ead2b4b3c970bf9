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

export const SignInSchema = Type.Object(
  {
    signInName: Type.String({
      minLength: 1,
      maxLength: 40,
      title: 'Sign-in name',
    }),
    password: Type.String({ minLength: 1, maxLength: 200, title: 'Password' }),
  },
  { ...closed, title: 'Sign-in' },
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
  },
  { ...closed, minProperties: 1, title: 'Person edit' },
);

export type SignIn = Static<typeof SignInSchema>;
export type FirstLead = Static<typeof FirstLeadSchema>;
export type CreatePerson = Static<typeof CreatePersonSchema>;
export type EditShop = Static<typeof EditShopSchema>;
export type EditPerson = Static<typeof EditPersonSchema>;

/** Who is signed in, as the app is told. */
export interface Me {
  personId: string;
  shopId: string;
  name: string;
  signInName: string;
  role: Role;
  shopName: string;
  /** IANA name of the zone the shop's times are said in. */
  timeZone: string;
  /** Made-up sources, such as the simulated gauge set, may be used in runs that are kept. */
  demo: boolean;
  /** What ears, soap and eyes get wrong here; nothing where the house's figures hold. */
  senses?: Senses | null;
}

export interface Person {
  id: string;
  name: string;
  signInName: string;
  role: Role;
  active: boolean;
}
