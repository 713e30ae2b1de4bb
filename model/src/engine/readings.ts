import type { LedgerEntry, Reading, Subject, VoidEntry } from '../document/ledger';

/** One key per thing that can be measured. */
export function subjectKey(subject: Subject): string {
  switch (subject.what) {
    case 'thickness':
      return `thickness/${subject.axle}/${subject.side}/${subject.memberId}`;
    case 'breakaway':
      return `breakaway/${subject.axle}/${subject.hold}`;
    case 'insert-fit':
      return `insert-fit/${subject.axle}`;
    default:
      return `${subject.what}/${subject.axle}/${subject.side}`;
  }
}

/** Which entry voids which reading. */
export function voidedBy(ledger: readonly LedgerEntry[]): ReadonlyMap<string, VoidEntry> {
  const voids = new Map<string, VoidEntry>();
  for (const entry of ledger) if (entry.kind === 'void' && !voids.has(entry.voids)) voids.set(entry.voids, entry);
  return voids;
}

/** The reading in force for each subject: the last one in the ledger that is not voided. */
export function readingsInForce(ledger: readonly LedgerEntry[]): ReadonlyMap<string, Reading> {
  const voids = voidedBy(ledger);
  const inForce = new Map<string, Reading>();
  for (const entry of ledger) {
    if (entry.kind === 'reading' && !voids.has(entry.id)) inForce.set(subjectKey(entry.subject), entry);
  }
  return inForce;
}
