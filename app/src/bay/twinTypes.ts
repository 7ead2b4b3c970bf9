export type { RigUnderTest } from '@keen-bleed/core';
export type { Coupling, Device, DeviceState, Heard, Soap, Wear } from '@keen-bleed/core/twin';
