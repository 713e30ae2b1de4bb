import { cutText } from '@hot-spline/core';
import type { LedgerEntry } from '../frame/readings';
import type { ReadingValue } from '../frame/values';

/** The longest word that is kept; a search is no longer. */
export const LONGEST_WORD = 80;

function valueTexts(value: ReadingValue): readonly string[] {
  switch (value.of) {
    case 'number':
    case 'places':
      return value.entries.map(({ typed }) => typed);
    case 'text':
      return [value.text];
    case 'choice':
      return [value.choice];
    default:
      return [];
  }
}

function textsOf(entry: LedgerEntry): readonly string[] {
  switch (entry.kind) {
    case 'reading':
      return [...valueTexts(entry.value), entry.instrument, entry.note ?? ''];
    case 'decision':
      return [entry.about, entry.decided, entry.why];
    case 'signature':
      return [entry.gate, entry.name, entry.note ?? ''];
    case 'void':
      return [entry.reason];
  }
}

/**
 * Every word that was written in a ledger, once, in small letters and in order: values as typed, notes, decisions with their
 * reasons, names under gates, reasons of voids, and who wrote it. What stands around a word (quotes, brackets, full stops) is no part of it; a sign
 * before a number is. Voided entries count: they were written.
 */
export function ledgerWords(ledger: readonly LedgerEntry[]): string[] {
  const words = new Set<string>();
  for (const entry of ledger)
    for (const text of [entry.who, ...textsOf(entry)])
      for (const part of text.toLowerCase().split(/\s+/)) {
        const word = cutText(part.replace(/^[^\p{L}\p{N}+−-]+|[^\p{L}\p{N}%°]+$/gu, ''), LONGEST_WORD);
        if (word !== '') words.add(word);
      }
  return [...words].sort();
}
