import type { StopMeasured } from '@keen-bleed/contract';
import { useCallback, useEffect, useRef, useState } from 'react';

type OnPhone = Extract<StopMeasured, { by: 'phone' }>;
type Vector = OnPhone['motion'][number];

/** Why this device feels no motion. */
export type NoMotion = 'plain-http' | 'missing' | 'refused' | 'silent';

/** Where a measured stop stands: not begun, standing still, driven, or why it cannot be had. */
export type MotionPhase = 'idle' | 'standing' | 'driving' | { none: NoMotion };

/** Standing still is watched for so long before anything moves, ms. */
const STANDS_MS = 2_500;
/** A device that has not told anything by then has no sensor, ms. */
const SILENT_MS = 1_500;
/** Kept of the drive: the newest samples, as a fact takes them. */
const MOST = 600;

interface Asks {
  requestPermission?: () => Promise<'granted' | 'denied'>;
}

/**
 * The phone on the floor as a sensor: first how it lies while the vehicle stands, then what it feels until it stands
 * again. Asked for at a press, since a browser asks its user only then; nothing leaves the device but what is kept.
 */
export function useMotion(): {
  phase: MotionPhase;
  begin: () => void;
  /** The vehicle stands again: what was felt, or null where it was too little. */
  end: (fromMph: number) => OnPhone | null;
  reset: () => void;
} {
  const [phase, setPhase] = useState<MotionPhase>('idle');
  const still = useRef<Vector[]>([]);
  const drive = useRef<{ atMs: number; felt: Vector }[]>([]);
  const listener = useRef<((event: DeviceMotionEvent) => void) | null>(null);
  const timers = useRef<ReturnType<typeof setTimeout>[]>([]);

  const stop = useCallback(() => {
    if (listener.current) window.removeEventListener('devicemotion', listener.current);
    listener.current = null;
    for (const timer of timers.current) clearTimeout(timer);
    timers.current = [];
  }, []);
  useEffect(() => stop, [stop]);

  const listen = useCallback(() => {
    still.current = [];
    drive.current = [];
    let isStanding = true;
    const hear = ({ accelerationIncludingGravity: felt }: DeviceMotionEvent) => {
      if (felt?.x == null || felt.y == null || felt.z == null) return;
      const vector: Vector = [felt.x, felt.y, felt.z];
      if (isStanding) still.current.push(vector);
      else {
        drive.current.push({ atMs: performance.now(), felt: vector });
        if (drive.current.length > MOST) drive.current.shift();
      }
    };
    listener.current = hear;
    window.addEventListener('devicemotion', hear);
    setPhase('standing');
    timers.current.push(
      setTimeout(() => {
        if (still.current.length > 0) return;
        stop();
        setPhase({ none: 'silent' });
      }, SILENT_MS),
      setTimeout(() => {
        if (still.current.length === 0) return;
        isStanding = false;
        setPhase('driving');
      }, STANDS_MS),
    );
  }, [stop]);

  const begin = useCallback(() => {
    stop();
    if (!window.isSecureContext) return setPhase({ none: 'plain-http' });
    if (!('DeviceMotionEvent' in window)) return setPhase({ none: 'missing' });
    const asks = DeviceMotionEvent as unknown as Asks;
    if (!asks.requestPermission) return listen();
    asks.requestPermission().then(
      (answer) => (answer === 'granted' ? listen() : setPhase({ none: 'refused' })),
      () => setPhase({ none: 'refused' }),
    );
  }, [listen, stop]);

  const end = useCallback(
    (fromMph: number): OnPhone | null => {
      stop();
      setPhase('idle');
      const felt = drive.current;
      const [first, last] = [felt[0], felt.at(-1)];
      if (!first || !last || still.current.length < 10 || felt.length < 10) return null;
      const seconds = (last.atMs - first.atMs) / 1000;
      const hz = (felt.length - 1) / Math.max(seconds, 1e-3);
      if (hz < 10 || hz > 200) return null;
      return {
        by: 'phone',
        still: stillOf(still.current),
        hz,
        motion: felt.map(({ felt: vector }) => vector),
        fromMph,
      };
    },
    [stop],
  );

  const reset = useCallback(() => {
    stop();
    setPhase('idle');
  }, [stop]);
  return { phase, begin, end, reset };
}

/** The mean of what was felt standing still, and how much it shook about it. */
function stillOf(samples: readonly Vector[]): OnPhone['still'] {
  const mean = [0, 1, 2].map(
    (axis) => samples.reduce((sum, each) => sum + each[axis]!, 0) / samples.length,
  ) as Vector;
  const squares = samples.reduce(
    (sum, each) => sum + each.reduce((all, value, axis) => all + (value - mean[axis]!) ** 2, 0),
    0,
  );
  return { mean, sd: Math.sqrt(squares / (3 * samples.length)), samples: samples.length };
}
