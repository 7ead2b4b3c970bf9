import { Redirect } from 'expo-router';

/** Where open runs were listed before all work had one place. */
export default function OpenRuns() {
  return <Redirect href="/work" />;
}
