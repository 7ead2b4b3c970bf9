/** What says whether the demo world is made. */
export interface DemoSurroundings {
  /** `1` where it is the usual, `forced` where somebody asked for it by name. */
  DEMO?: string | undefined;
  HOST?: string | undefined;
  COOKIE_SECURE?: string | undefined;
}

/** Why the demo world is not made, though it is the usual. */
export const DEMO_IS_PUBLIC =
  'No demo world: its passwords are public, and this address is open to others. Start with --demo to have it all the same.';

const LOOPBACK = /^(127(\.\d{1,3}){3}|::1|localhost)$/;

/**
 * Whether the demo world may be made: its sign-ins are printed in the README, so it is made where nobody but this machine
 * can reach it, or where somebody asked for it by name. Behind HTTPS a proxy brings others in.
 */
export function demoWanted({
  DEMO,
  HOST = '127.0.0.1',
  COOKIE_SECURE,
}: DemoSurroundings): 'yes' | 'no' | 'public' {
  if (DEMO === 'forced') return 'yes';
  if (DEMO !== '1') return 'no';
  return LOOPBACK.test(HOST) && COOKIE_SECURE !== '1' ? 'yes' : 'public';
}
