import type { GaugeChannel, SentSample } from '@keen-bleed/contract';
import { linkedNowPsi, withSample, type GaugeSample } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import { followStream } from '../wire/followStream';
import type { LinkedGauge } from './linkedGauge';

/** Battery under which it is said, as a share. */
const LOW_BATTERY = 0.2;
/** A reading older than this is not where the needle stands, ms. */
const STALE_MS = 1_500;

/** How the link stands: what is read, and what is wrong with it. */
export interface Link {
  gauge: LinkedGauge;
  /** What to say of it, in one line. */
  said: string;
}

/** Follows one channel of a unit's gauge set; pass null to follow none. */
export function useLinkedGauge(unitId: string | null, channel: GaugeChannel): Link | null {
  const [log, setLog] = useState<readonly GaugeSample[]>([]);
  const [battery, setBattery] = useState(1);
  const [away, setAway] = useState(false);
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (unitId === null) return undefined;
    // The sender's clock is not this device's: what was on its way for the shortest time tells by how much.
    let ahead = Infinity;
    const hear = (data: string) => {
      const receivedMs = Date.now();
      const sent = (JSON.parse(data) as SentSample[]).filter((each) => each.channel === channel);
      for (const each of sent) ahead = Math.min(ahead, receivedMs - each.sentAtMs);
      const last = sent.at(-1);
      if (!last) return;
      setBattery(last.battery);
      setAway(false);
      setLog((before) =>
        sent.reduce(
          (kept, { seq, atMs, psi }) => withSample(kept, { seq, atMs: atMs + ahead, psi }),
          before,
        ),
      );
    };
    const stop = followStream(`/api/v1/units/${unitId}/gauges/live`, { samples: hear }, () =>
      setAway(true),
    );
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => {
      stop();
      clearInterval(timer);
      setLog([]);
    };
  }, [channel, unitId]);
  if (unitId === null) return null;
  const last = log.at(-1);
  const silent = !last || nowMs - last.atMs > STALE_MS;
  return {
    gauge: {
      log,
      psi: last && !silent ? Math.round(last.psi * 10) / 10 : null,
      resolutionPsi: linkedNowPsi(log),
      asRole: 'simulated',
    },
    said: [
      away
        ? 'simulated gauge set out of reach'
        : silent
          ? 'simulated gauge set silent'
          : 'simulated gauge set linked',
      ...(battery < LOW_BATTERY ? ['battery low'] : []),
    ].join(', '),
  };
}
