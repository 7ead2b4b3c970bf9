import type { PressureUnit } from '@keen-bleed/contract';
import { toPsi } from '@keen-bleed/core';
import type { HandBrake } from './bayProtocol';
import type { Bay } from './useBay';

/** One control of the cab: what it is called, where it can stand, where it stands. */
export interface CabControl {
  label: string;
  options: readonly { value: string; title: string }[];
  value: string;
  onChange: (value: string) => void;
}

const ENGINE = [
  { value: '0', title: 'off' },
  { value: '650', title: 'idle' },
  { value: '1400', title: '1,400' },
  { value: '2100', title: '2,100' },
] as const;
/** What can be asked for by foot and by hand between nothing and all there is, in the unit of the cab's gauge. */
const PEDAL: Readonly<Record<PressureUnit, readonly number[]>> = {
  psi: [20, 60],
  kPa: [150, 400],
  bar: [1.5, 4],
};
const HAND: Readonly<Record<PressureUnit, readonly number[]>> = {
  psi: [40],
  kPa: [300],
  bar: [3],
};
const FULL_PSI = 150;
const KNOB = [
  { value: 'in', title: 'in' },
  { value: 'out', title: 'out' },
] as const;
const HAND_BRAKE = [
  { value: 'released', title: 'released' },
  { value: 'part', title: 'half' },
  { value: 'parked', title: 'parked' },
  { value: 'test', title: 'test' },
] as const;
const SHOP = [
  { value: 'on', title: 'on' },
  { value: 'off', title: 'off' },
] as const;
const SPEEDS = [
  { value: '1', title: '× 1' },
  { value: '4', title: '× 4' },
  { value: '16', title: '× 16' },
] as const;

/** Name of the way shop air comes in by. */
const SHOP_VALVE = 'shop valve';

/** From nothing over some pressures to all there is; the values are psi. */
const asked = (levels: readonly number[], none: string, unit: PressureUnit) => [
  { value: '0', title: none },
  ...levels.map((level) => ({ value: String(toPsi(level, unit)), title: String(level) })),
  { value: String(FULL_PSI), title: 'full' },
];

/** What a hand or foot can do from the seat, in the order of reach; pressures in the unit of its gauge. */
export function cabControls({ frame, rig, move }: Bay, unit: PressureUnit): CabControl[] {
  const controls: CabControl[] = [];
  if (!rig.hasShopAir) {
    controls.push(
      {
        label: 'Engine',
        options: ENGINE,
        value: String(frame.rpm),
        onChange: (value) => move({ kind: 'engine', rpm: Number(value) }),
      },
      {
        label: `Pedal, ${unit} asked`,
        options: asked(PEDAL[unit], 'up', unit),
        value: String(frame.pedalPsi),
        onChange: (value) => move({ kind: 'pedal', psi: Number(value) }),
      },
    );
  } else {
    controls.push(
      {
        label: 'Shop air',
        options: SHOP,
        value: frame.opened.includes(SHOP_VALVE) ? 'on' : 'off',
        onChange: (value) => move({ kind: 'open', way: SHOP_VALVE, share: value === 'on' ? 1 : 0 }),
      },
      {
        label: `Service, ${unit} asked`,
        options: asked(PEDAL[unit], 'off', unit),
        value: String(frame.handPsi),
        onChange: (value) => move({ kind: 'hand', psi: Number(value) }),
      },
    );
  }
  if (rig.hasPark) {
    controls.push({
      label: 'Park, yellow',
      options: KNOB,
      value: frame.parkIn ? 'in' : 'out',
      onChange: (value) => move({ kind: 'park', isIn: value === 'in' }),
    });
  }
  if (rig.hasHandBrake) {
    controls.push({
      label: 'Hand brake',
      options: HAND_BRAKE,
      value: frame.handBrake,
      onChange: (value) => move({ kind: 'hand-brake', at: value as HandBrake }),
    });
  }
  if (rig.hasTrailer) {
    controls.push({
      label: 'Trailer supply, red',
      options: KNOB,
      value: frame.trailerIn ? 'in' : 'out',
      onChange: (value) => move({ kind: 'trailer', isIn: value === 'in' }),
    });
  }
  if (rig.hasHandValve) {
    controls.push({
      label: `Hand valve, ${unit} asked`,
      options: asked(HAND[unit], 'off', unit),
      value: String(frame.handPsi),
      onChange: (value) => move({ kind: 'hand', psi: Number(value) }),
    });
  }
  return controls;
}

/** How fast its time goes. */
export function timeControl({ frame, move }: Bay): CabControl {
  return {
    label: 'Time',
    options: SPEEDS,
    value: String(frame.speed),
    onChange: (value) => move({ kind: 'speed', times: Number(value) }),
  };
}
