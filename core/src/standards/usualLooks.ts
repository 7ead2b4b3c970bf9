import type { ShopLook } from '@keen-bleed/contract';

/**
 * What people check in the cab on the same round, each with the figure they usually hold it to. Figures: common
 * practice, no source. A lead picks from these for a shop's own list, or writes others.
 */
export const usualLooks: readonly ShopLook[] = [
  { key: 'belt', ask: 'Compressor belt', usual: 'no cracks, tight' },
  { key: 'horn', ask: 'Horn' },
  { key: 'glass', ask: 'Windscreen', usual: 'damage at most ¼ in (6 mm)' },
  { key: 'wipers', ask: 'Wipers and washer' },
  { key: 'steering', ask: 'Steering play', usual: 'at most 2 in (50 mm) at the rim' },
  { key: 'oil', ask: 'Oil pressure', usual: '30 to 60 psi (2 to 4 bar)' },
  { key: 'coolant', ask: 'Coolant', usual: '180 to 200 °F (82 to 93 °C)' },
  { key: 'charging', ask: 'Charging voltage', usual: '12 to 14 V' },
  { key: 'exhaust-fluid', ask: 'Exhaust fluid', usual: 'over an eighth' },
];
