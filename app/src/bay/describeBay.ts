import { checksOf } from '@keen-bleed/core/checks';
import { exhaustsOf, faultsOf, partOf, type Twin } from '@keen-bleed/core/twin';
import type { BayRig, BaySetup, Named } from './bayProtocol';

/** What does not change about a rig: its parts, and what can be done at them. */
export function describeBay(twin: Twin, rig: BaySetup['rig'], outsideC: number): BayRig {
  const { nodes, elements } = twin.system.network;
  const faults = faultsOf(rig, outsideC);
  const named = (ids: readonly string[], of: readonly Named[]) =>
    of.filter(({ id }) => ids.includes(id)).map(({ id, name }) => ({ id, name }));
  const first = nodes.find(({ kind }) => kind === 'primary tank' || kind === 'towed tank');
  const gaugePlace = (first ?? nodes[0])?.id ?? '';
  // A trailer alone has the shop's valve as a control of its own.
  const isPowered = twin.hasPlace('governor line');
  return {
    exhausts: named(exhaustsOf(twin), elements),
    taps: elements
      .filter(
        ({ does }) => does === 'drain' || does === 'cock' || (isPowered && does === 'shop valve'),
      )
      .map(({ id, name, unit, part }) => ({ id, name, unit, part })),
    checks: checksOf(rig, faults),
    driverSays: null,
    hasCouplers: elements.some(({ does }) => does === 'coupler'),
    faults: faults.map((fault) => {
      const { unit, part } = partOf(fault, twin);
      return { id: fault.id, part: fault.part, title: fault.title, unit, partId: part };
    }),
    hasPark: twin.hasPlace('park line') && !twin.hasHandBrake,
    hasTrailer: twin.hasLatch('trailer supply valve'),
    hasHandValve: twin.hasPlace('hand signal') && !twin.hasHandBrake,
    hasShopAir: twin.hasWay('shop service valve: inlet'),
    hasHandBrake: twin.hasHandBrake,
    gaugePlace,
  };
}
