import { useEffect, useRef } from 'react';
import { startAirSound, type AirSound } from './airSound';
import type { Bay } from './useBay';

/** An ear stays at a port for this long after it was held there, by the rig's time, s. */
const LISTENS_S = 4;

/** Lets the air be heard: at the port an ear is held to, otherwise all of it from the seat. */
export function useAirSound(bay: Bay, on: boolean): (port: string) => void {
  const sound = useRef<AirSound | null>(null);
  const ear = useRef<{ port: string; untilS: number } | null>(null);
  useEffect(() => {
    if (!on) return undefined;
    sound.current = startAirSound();
    return () => {
      sound.current?.stop();
      sound.current = null;
    };
  }, [on]);
  const { frame, rig } = bay;
  useEffect(() => {
    if (!sound.current) return;
    const at = ear.current;
    const close = at !== null && frame.timeS < at.untilS;
    const heard = rig.exhausts.reduce((sum, port) => {
      const e = rig.ways.findIndex(({ id }) => id === port.id);
      return close && port.id !== at.port ? sum : sum + Math.abs(frame.scfm[e] ?? 0);
    }, 0);
    sound.current.hear(heard, close);
  }, [frame, rig]);
  return (port) => {
    ear.current = { port, untilS: frame.timeS + LISTENS_S * frame.speed };
  };
}
