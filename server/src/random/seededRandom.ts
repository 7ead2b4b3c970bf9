/** A source of made-up numbers that comes out the same for the same seed (the mulberry32 scheme). */
export interface SeededRandom {
  /** Even between 0 and 1. */
  next: () => number;
  /** Even between two bounds. */
  between: (low: number, high: number) => number;
  /** Roughly normal with mean 0 and standard deviation 1: twelve even ones, less six. */
  normal: () => number;
  /** A UUID of version 7 for a moment. */
  uuid: (atMs: number) => string;
}

export function seededRandom(seed: number): SeededRandom {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const hex = (digits: number) =>
    Array.from({ length: digits }, () => Math.floor(next() * 16).toString(16)).join('');
  return {
    next,
    between: (low, high) => low + (high - low) * next(),
    normal: () => Array.from({ length: 12 }, next).reduce((sum, each) => sum + each, -6),
    uuid: (atMs) => {
      const time = Math.floor(atMs).toString(16).padStart(12, '0');
      return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-8${hex(3)}-${hex(12)}`;
    },
  };
}
