import type { UnitForm } from './unitForm';

const KEY = 'keen-bleed.form.';

/** Keeps what stands in a form, so that a closed tab loses nothing. */
export function keepDraft(name: string, form: UnitForm): void {
  try {
    localStorage.setItem(KEY + name, JSON.stringify(form));
  } catch {
    // A device that keeps nothing still has the form open.
  }
}

/** What was kept under a name, or null. */
export function keptDraft(name: string): UnitForm | null {
  try {
    const kept = localStorage.getItem(KEY + name);
    return kept === null ? null : (JSON.parse(kept) as UnitForm);
  } catch {
    return null;
  }
}

/** Forgets what was kept, once it has been saved or thrown away. */
export function dropDraft(name: string): void {
  try {
    localStorage.removeItem(KEY + name);
  } catch {
    // Nothing was kept then.
  }
}
