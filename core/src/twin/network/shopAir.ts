import type { NetworkBuilder } from './network';
import { pa } from './pascal';

/** Shop air: as good as endless, and regulated. */
const SHOP_LITRES = 100_000;
/** Where shop air comes from. */
export const SHOP_AIR = 'shop air';
export const SHOP_PA = pa(120);

/** The shop's air as a place. */
export function shopAir(net: NetworkBuilder): number {
  return net.node(SHOP_AIR, SHOP_LITRES);
}

/** The shop's air, to be joined to a powered unit: at the fill port of its supply tank, and at the feed of its springs. */
export function shopAirTo(net: NetworkBuilder, supplyTank: number, parkFeed: number): void {
  const shop = shopAir(net);
  net.way('shop air to the service port', shop, supplyTank, 3, { does: 'shop valve' });
  net.way('shop air to the park feed', shop, parkFeed, 6, { does: 'shop valve' });
}
