/** How people in the yard call a unit: what it is, then its number. */
export function unitTitle(unit: { name: string; number: string }): string {
  return `${unit.name} ${unit.number}`;
}
