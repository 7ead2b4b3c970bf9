import { Notice } from './Notice';

/** Says what an address without HTTPS costs, and how HTTPS is turned on; nothing where it is on. */
export function PlainHttp() {
  if (typeof window === 'undefined' || window.isSecureContext) return null;
  return (
    <Notice
      manner="trouble"
      title="This address is not HTTPS"
      text="Marks are kept on this device all the same, but the app itself is not: a reload without network shows nothing, and passwords can be read on the way. Whoever runs the server can put HTTPS in front of it: “HTTPS” in docs/RUNNING.md says how."
    />
  );
}
