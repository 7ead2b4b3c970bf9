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
const PEDAL = [
  { value: '0', title: 'up' },
  { value: '20', title: '20' },
  { value: '60', title: '60' },
  { value: '150', title: 'full' },
] as const;
const KNOB = [
  { value: 'in', title: 'in' },
  { value: 'out', title: 'out' },
] as const;
const HAND = [
  { value: '0', title: 'off' },
  { value: '40', title: '40' },
  { value: '150', title: 'full' },
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

/** What a hand or foot can do from the seat, in the order of reach. */
export function cabControls({ frame, rig, move }: Bay): CabControl[] {
  const controls: CabControl[] = [];
  if (rig.hasEngine) {
    controls.push(
      {
        label: 'Engine',
        options: ENGINE,
        value: String(frame.rpm),
        onChange: (value) => move({ kind: 'engine', rpm: Number(value) }),
      },
      {
        label: 'Pedal, psi asked',
        options: PEDAL,
        value: String(frame.pedalPsi),
        onChange: (value) => move({ kind: 'pedal', psi: Number(value) }),
      },
    );
  } else {
    controls.push({
      label: 'Shop air',
      options: SHOP,
      value: frame.opened.includes(SHOP_VALVE) ? 'on' : 'off',
      onChange: (value) => move({ kind: 'open', way: SHOP_VALVE, share: value === 'on' ? 1 : 0 }),
    });
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
      label: 'Hand valve, psi asked',
      options: HAND,
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
