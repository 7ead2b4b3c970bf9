export type { RigUnderTest } from '@keen-bleed/core';
export type { Device, DeviceState, Heard, Soap } from '@keen-bleed/core/twin';
