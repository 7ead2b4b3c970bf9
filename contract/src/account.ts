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

/** The first account of a new installation: a shop and its lead. */
export const FirstLeadSchema = Type.Object(
  {
    shopName: Line('Shop name', 60),
    name: Line('Name', 60),
    signInName: SignInName,
    password: NewPassword,
  },
  { ...closed, title: 'First account' },
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
export type EditPerson = Static<typeof EditPersonSchema>;

/** Who is signed in, as the app is told. */
export interface Me {
  personId: string;
  shopId: string;
  name: string;
  signInName: string;
  role: Role;
  shopName: string;
}

export interface Person {
  id: string;
  name: string;
  signInName: string;
  role: Role;
  active: boolean;
}
