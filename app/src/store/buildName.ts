/** What this build of the app is called: its script's name carries a hash of all that is in it. */
export function buildName(): string {
  if (typeof document === 'undefined') return 'no page';
  const script = document.querySelector('script[src*="/_expo/static/"]');
  return script?.getAttribute('src') ?? 'development';
}
