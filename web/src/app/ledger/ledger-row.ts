import { formatIn, type UnitSystem } from '@hot-spline/core';
import { readingBase, type Build, type LedgerEntry, type Reading } from '@hot-spline/model';
import { kindOf, typedText } from '../shared/reading-words';

interface Row {
  readonly entry: LedgerEntry;
  readonly what: string;
  readonly typed: string;
  readonly shown: string;
  readonly with: string;
  readonly note: string;
}

function readingRow(reading: Reading, build: Build, system: UnitSystem): Omit<Row, 'entry'> {
  const subject = kindOf(reading);
  const kind = subject?.value;
  const what = subject?.words(reading.subject, build) ?? reading.subject.what;
  const several = reading.value.of === 'number' && reading.value.entries.length > 1;
  const { gauge } = reading;
  const sent = gauge?.lines.filter(Boolean).join('; ');
  const note = [
    gauge?.simulated && 'simulated: counts for nothing',
    gauge && sent && `${gauge.name} sent ${sent}`,
    several && `${reading.value.of === 'number' ? reading.value.counts : ''} of them counts`,
    reading.note,
  ];
  const common = { what, with: reading.instrument, note: note.filter(Boolean).join('; ') };
  const typed = typedText(reading);
  if (kind?.of !== 'number') return { ...common, typed, shown: '' };
  const { text, unit } = formatIn(readingBase(reading), kind.quantity, system, undefined, kind.scale);
  // What was typed in this unit is not said twice.
  return { ...common, typed, shown: typed.endsWith(unit) ? '' : `${text} ${unit}` };
}

/** What an entry says, in the words of the bench. */
export function ledgerRow(entry: LedgerEntry, build: Build, system: UnitSystem): Row {
  switch (entry.kind) {
    case 'reading':
      return { entry, ...readingRow(entry, build, system) };
    case 'decision':
      return { entry, what: entry.about, typed: entry.decided, shown: '', with: 'decision', note: entry.why };
    case 'signature':
      return {
        entry,
        what: `Gate ${entry.gate}`,
        typed: entry.name,
        shown: '',
        with: 'signature',
        note: entry.note ?? '',
      };
    case 'void':
      return { entry, what: 'Void', typed: '', shown: '', with: '', note: entry.reason };
  }
}
