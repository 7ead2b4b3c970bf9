/** Channels of a wireless gauge set, by what they are teed into. */
export const gaugeChannels = ['primary', 'secondary', 'supply'] as const;
export type GaugeChannel = (typeof gaugeChannels)[number];

/** One reading as a gauge set sends it. Readings may come late, twice, or not at all. */
export interface SentSample {
  channel: GaugeChannel;
  /** Counts up in each channel. */
  seq: number;
  /** When it was read, by the sender's clock. */
  atMs: number;
  /** When it was sent, by the same clock: the receiver's own clock may differ. */
  sentAtMs: number;
  psi: number;
  /** Charge left, 0 to 1. */
  battery: number;
}
