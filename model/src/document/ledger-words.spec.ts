import type { LedgerEntry } from '../frame/readings';
import { LONGEST_WORD, ledgerWords } from './ledger-words';

const written = { id: '00000000-0000-4000-8000-000000000001', at: '2026-11-26T08:00:00.000Z', who: 'Ines' };
const reading = (value: object, more: object = {}): LedgerEntry =>
  ({
    kind: 'reading',
    ...written,
    subject: { what: 'x' },
    value,
    state: {},
    instrument: 'Dial',
    ...more,
  }) as LedgerEntry;

describe('words of a ledger', () => {
  it('are all that was written, once, small, without what stands around them', () => {
    const ledger: LedgerEntry[] = [
      reading({ of: 'number', counts: 'one', entries: [{ typed: '0.0065 in', value: 0.0065, unit: 'in' }] }),
      reading({ of: 'places', entries: [{ typed: '-0,4 mm', value: -0.4, unit: 'mm' }] }),
      reading({ of: 'text', text: 'Tooth "B" chipped, (heel).' }, { note: 'See photo!' }),
      reading({ of: 'choice', choice: 'run-on' }),
      reading({ of: 'photos', photos: ['a'.repeat(64)] }),
      { kind: 'decision', ...written, about: 'ratio', decided: '4.10', why: 'Owner asked' },
      { kind: 'signature', ...written, gate: 'rear.B', name: 'Tomás Vale', figures: {} },
      { kind: 'void', ...written, voids: written.id, reason: 'Wrong side' },
    ];
    expect(ledgerWords(ledger)).toEqual(
      [
        ...['ines', 'dial', '0.0065', 'in', '-0,4', 'mm', 'tooth', 'b', 'chipped', 'heel', 'see', 'photo', 'run-on'],
        ...['ratio', '4.10', 'owner', 'asked', 'rear.b', 'tomás', 'vale', 'wrong', 'side'],
      ].sort(),
    );
  });

  it('are none of an empty ledger, and no longer than a search', () => {
    expect(ledgerWords([])).toEqual([]);
    const long = reading({ of: 'text', text: `${'x'.repeat(200)} — … ` }, { who: '', instrument: '' });
    expect(ledgerWords([long])).toEqual(['x'.repeat(LONGEST_WORD)]);
    // No half of a character: it could not be kept.
    const wide = reading({ of: 'text', text: `y${'𐐷'.repeat(60)}` }, { who: '', instrument: '' });
    expect(ledgerWords([wide])[0]).toBe(`y${'𐐷'.repeat(39)}`);
  });
});
