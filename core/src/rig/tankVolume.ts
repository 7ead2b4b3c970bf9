import type { Tank } from '@keen-bleed/contract';

/** Volume of all service and supply tanks, in³; accessory tanks do not count toward the brakes. */
export function brakeTankVolumeIn3(tanks: readonly Tank[]): number {
  return tanks.reduce((sum, tank) => (tank.role === 'accessory' ? sum : sum + tank.volumeIn3), 0);
}

/** Volume of every tank that shares the compressor's air, in³. */
export function totalTankVolumeIn3(tanks: readonly Tank[]): number {
  return tanks.reduce((sum, tank) => sum + tank.volumeIn3, 0);
}
