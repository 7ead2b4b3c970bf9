import type { RunHeader } from '@keen-bleed/contract';
import type { GaugeSample } from '@keen-bleed/core';
import type * as Comlink from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { CabStrip } from '../bay/CabStrip';
import { sayClock } from '../data/when';
import { gaugeSet } from '../practice/practiceGauge';
import { PracticeRun } from '../practice/PracticeRun';
import { usePractice } from '../practice/usePractice';
import type { TraceWorker } from '../recorded/traceWorker';

const TICK_MS = 100;
/** A tab that slept does not play what nobody saw, s. */
const LONGEST_TICK_S = 0.25;
const SPEEDS = [
  { value: '0', title: 'stopped' },
  { value: '1', title: '× 1' },
  { value: '4', title: '× 4' },
  { value: '16', title: '× 16' },
] as const;

interface TracePlayerProps {
  header: RunHeader;
  worker: Comlink.Remote<TraceWorker>;
  endS: number;
  onLeave: () => void;
}

/** A recorded trace played as if it were read now: the gauge of a run for practice, by the recording's own time. */
export function TracePlayer({ header, worker, endS, onLeave }: TracePlayerProps) {
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]['value']>('1');
  const [played, setPlayed] = useState<{ atS: number; log: readonly GaugeSample[] }>({
    atS: 0,
    log: [],
  });
  const atS = useRef(0);
  const times = Number(speed);
  const { startedAtMs } = header;
  useEffect(() => {
    if (times === 0) return undefined;
    let lastMs = performance.now();
    const timer = setInterval(() => {
      const nowMs = performance.now();
      const from = atS.current;
      const to = Math.min(endS, from + Math.min(LONGEST_TICK_S, (nowMs - lastMs) / 1000) * times);
      lastMs = nowMs;
      atS.current = to;
      void worker.played(from, to).then((points) => {
        // Also when the speed was changed meanwhile: what was played is not lost.
        setPlayed(({ log }) => ({
          atS: to,
          log: [
            ...log,
            ...points.map(({ s, psi }, n) => ({
              seq: log.length + n + 1,
              atMs: startedAtMs + Math.round(s * 1000),
              psi,
            })),
          ],
        }));
      });
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [endS, startedAtMs, times, worker]);
  const [clock] = useState(() => () => startedAtMs + Math.round(atS.current * 1000));
  const practice = usePractice(header, clock);
  if (!practice) return null;
  const reading = { byGauge: true, maySimulate: true, choose: () => undefined };
  return (
    <PracticeRun
      practice={{ ...practice, reading }}
      gauge={gaugeSet(played.log, played.log.at(-1)?.psi ?? 0)}
      strip={
        <CabStrip
          label="The recording"
          controls={[
            {
              label: 'Playing',
              options: SPEEDS,
              value: speed,
              onChange: (value) => setSpeed(value as typeof speed),
            },
          ]}
          told={[`${sayClock(played.atS * 1000)} of ${sayClock(endS * 1000)}`]}
        />
      }
      leaveTitle="Trace"
      onLeave={onLeave}
    />
  );
}
