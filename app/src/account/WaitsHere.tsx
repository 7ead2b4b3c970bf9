import { useEffect } from 'react';
import { countWaiting, useOutbox } from '../store/outbox';
import { Notice } from '../ui/Notice';

/** Before sign-in: what was recorded on this device and has not reached the server, so that nobody thinks it lost. */
export function WaitsHere() {
  const { unsent } = useOutbox();
  useEffect(() => {
    // A store that cannot be read says nothing here; signing in does not hang on it.
    void countWaiting().catch(() => undefined);
  }, []);
  if (unsent === 0) return null;
  return (
    <Notice
      title={
        unsent === 1 ? '1 entry waits on this device.' : `${unsent} entries wait on this device.`
      }
      text="Nothing is lost: what waits is sent once whoever recorded it signs in here."
    />
  );
}
