import type { LogKind } from './logKind';

/** A log as it was kept by whatever version. */
export interface OldLog {
  header: Record<string, unknown>;
  facts: readonly Record<string, unknown>[];
}

/**
 * Brings a log up from the version each of its pieces was kept in.
 *
 * @throws where a piece is of a later version than this one, or of one that no migration knows
 */
export function upToDate(kind: Pick<LogKind, 'name' | 'version' | 'upcast'>, old: OldLog): OldLog {
  const id = String(old.header.id);
  return {
    header: raised(kind, old.header, (migration, header) => migration.header(header, old.facts)),
    facts: old.facts.map((fact) =>
      raised(kind, fact, (migration, each) => migration.fact(each, { id })),
    ),
  };
}

function raised(
  { name, version, upcast }: Pick<LogKind, 'name' | 'version' | 'upcast'>,
  piece: Record<string, unknown>,
  by: (migration: LogKind['upcast'][number], piece: Record<string, unknown>) => unknown,
): Record<string, unknown> {
  let now = piece;
  // What was kept before versions were written down is the first.
  for (let v = Number(piece.v ?? 1); v < version; v += 1) {
    const migration = upcast[v];
    if (!migration) throw new Error(`no migration takes a ${name} from version ${v}`);
    now = { ...(by(migration, now) as Record<string, unknown>), v: v + 1 };
  }
  if (Number(now.v) > version)
    throw new Error(`a ${name} of version ${String(now.v)} is newer than this program`);
  return now;
}
