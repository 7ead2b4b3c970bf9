import type { ChainStanding } from '@keen-bleed/contract';
import { Notice } from './Notice';

/** Says that an entry of a record is not what was recorded; nothing where all of it is. */
export function ChainBroken({ chain }: { chain: ChainStanding | undefined }) {
  if (chain?.brokenAt == null) return null;
  return (
    <Notice
      manner="trouble"
      title={`Entry ${chain.brokenAt} of this record is not what was recorded`}
      text="Somebody or something changed it in the database. Do not rely on this record: compare it with an export or a backup, and tell whoever runs the server."
    />
  );
}
