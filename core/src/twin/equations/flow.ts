/*
 * Flow of air through a restriction after ISO 6358: a sonic conductance C and a critical pressure ratio b,
 * choked below b, an ellipse above it. [std: ISO 6358-1, value from memory]
 */

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { sqrt } = Math;

/** Reference density of ISO 6358's reference air (100 kPa, 20 °C), kg/m³. */
export const RHO_REFERENCE = 1.185;
/** Reference temperature of the same, K. */
export const T_REFERENCE_K = 293.15;

/**
 * The ellipse's slope has no end where nothing flows, which no solver can follow: with u = q(2−q) standing for
 * 1 − ((r−b)/(1−b))², √u is drawn as u·√((1+FOOT)/(u+FOOT)). It goes straight through zero within a few hundredths
 * of a bar and is within half of FOOT of the ellipse outside that.
 */
const FOOT = 0.012;

/** m³/(s·Pa) in one dm³/(s·bar), the unit in which a conductance is usually given. */
export const SI_PER_DM3_S_BAR = 1e-8;

/** What a restriction passes, and how that changes; made once and written over, so that nothing is allocated. */
export interface FlowAt {
  /** Flow from upstream to downstream per conductance·density, Pa. */
  value: number;
  byUpstream: number;
  byDownstream: number;
}

/**
 * The pressure part of ISO 6358: p₁·φ(p₂/p₁), with its two derivatives.
 *
 * @param upstreamPa absolute, not under `downstreamPa`
 * @param b critical pressure ratio, 0 to under 1
 * @param steep 1/(1 − b), which does not change from one moment to the next
 * @param out written over
 */
export function flowAt(
  upstreamPa: number,
  downstreamPa: number,
  b: number,
  steep: number,
  out: FlowAt,
): void {
  const ratio = downstreamPa / upstreamPa;
  if (ratio <= b) {
    out.value = upstreamPa;
    out.byUpstream = 1;
    out.byDownstream = 0;
    return;
  }
  const q = (1 - ratio) * steep;
  const u = q * (2 - q);
  const root = sqrt((1 + FOOT) / (u + FOOT));
  const phi = u * root;
  // dφ/du·du/dq·dq/dr
  const slope = -root * (1 - (0.5 * u) / (u + FOOT)) * 2 * (1 - q) * steep;
  out.value = upstreamPa * phi;
  out.byUpstream = phi - ratio * slope;
  out.byDownstream = slope;
}

/** The pressure part of ISO 6358 alone, Pa: `value` of `flowAt`. */
export function flowPa(
  upstreamPa: number,
  downstreamPa: number,
  b: number,
  steep: number = 1 / (1 - b),
): number {
  const ratio = downstreamPa / upstreamPa;
  if (ratio <= b) return upstreamPa;
  const q = (1 - ratio) * steep;
  const u = q * (2 - q);
  return upstreamPa * u * sqrt((1 + FOOT) / (u + FOOT));
}

/**
 * Mass flow through a restriction, kg/s, from higher to lower pressure; against the numbers' order it is negative.
 *
 * @param conductance sonic conductance C, m³/(s·Pa)
 * @param temperatureK of the air upstream
 */
export function massFlowKgPerS(
  fromPa: number,
  toPa: number,
  conductance: number,
  b: number,
  temperatureK: number = T_REFERENCE_K,
): number {
  const forwards = fromPa >= toPa;
  const value = flowPa(forwards ? fromPa : toPa, forwards ? toPa : fromPa, b);
  const flow = conductance * RHO_REFERENCE * sqrt(T_REFERENCE_K / temperatureK) * value;
  return forwards ? flow : -flow;
}

/**
 * Sonic conductance of a round hole: its area times a discharge coefficient times what choked air passes
 * (0.0404 kg·√K/(s·N), the gas-dynamics constant of air), over the reference density.
 *
 * @param diameterMm hole diameter, mm
 * @returns m³/(s·Pa)
 */
export function holeConductance(diameterMm: number, dischargeCoefficient = 0.8): number {
  const areaM2 = (Math.PI / 4) * (diameterMm / 1000) ** 2;
  return (dischargeCoefficient * areaM2 * 0.04042) / sqrt(T_REFERENCE_K) / RHO_REFERENCE;
}
