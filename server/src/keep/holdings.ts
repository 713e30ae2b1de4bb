import { holdingsOf, readingsInForce, type Build, type Holding, type LedgerEntry } from '@hot-spline/model';
import type { Queries } from '../db/database';

/** Whether an entry can change what its build holds out of drawers. */
export const touchesDrawers = (entry: LedgerEntry): boolean =>
  entry.kind === 'void' || (entry.kind === 'reading' && ['assembly', 'spacer'].includes(entry.subject.what));

/** The last entry of the ledger of $1. */
export const LAST_SEQ = '(select coalesce(max(seq), 0) from ledger where build_id = $1)';

/** Keeps what a build holds out of drawers. */
export async function writeHoldings(tx: Queries, id: string, holdings: readonly Holding[]): Promise<void> {
  await tx.query('delete from holdings where build_id = $1', [id]);
  for (const [n, holding] of holdings.entries())
    await tx.query(
      `insert into holdings (build_id, n, seq, drawers, holding) values ($1, $2, ${LAST_SEQ}, $3::uuid[], $4)`,
      [id, n, [...holding.drawers], JSON.stringify(holding)],
    );
  await tx.query('update builds set held = true where id = $1 and not held', [id]);
}

/** What a build holds by its ledger: practice takes nothing out of drawers. */
export const holdingsIn = ({ practice }: Build, ledger: readonly LedgerEntry[]): readonly Holding[] =>
  practice === null ? holdingsOf(readingsInForce(ledger)) : [];
