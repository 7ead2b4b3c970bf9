export type { RigUnderTest } from '@keen-bleed/core';
export type { Heard, Soap } from '@keen-bleed/core/twin';
