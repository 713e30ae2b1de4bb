import { InputError, MESH_LIMITS, entryBase, parseEntry, say, type Entry, type UnitSystem } from '@hot-spline/core';
import type { Understood } from '../shared/field';

/** Pieces of a pack as text: `1.2 mm + 0.05 mm`. */
export const piecesText = (pieces: readonly Entry[]): string =>
  pieces.map(({ typed, unit }) => (/[a-z"″”]/i.test(typed) || unit === '' ? typed : `${typed} ${unit}`)).join(' + ');

export const piecesMm = (pieces: readonly Entry[]): number => pieces.reduce((sum, piece) => sum + entryBase(piece), 0);

/** Reads the pieces of a pack, apart by `+`; nothing typed is a pack of nothing. */
export function piecesReader(label: string, system: UnitSystem): (text: string) => Understood<Entry[]> {
  return (text) => {
    const parts = text.split('+').map((part) => part.trim());
    if (text.trim() === '') return { value: [], said: 'none' };
    if (parts.length > 8)
      throw new InputError(label, `${label} has ${parts.length} pieces.`, '1 to 8 pieces, apart by +');
    const value = parts.map(
      (part) => parseEntry(part, { field: label, quantity: 'length', range: MESH_LIMITS.shimMm, system }).entry,
    );
    const sum = piecesMm(value);
    const count = value.length === 1 ? '' : `${value.length} pieces, `;
    return { value, said: `${count}${say(sum, 'length', 'inch')} = ${say(sum, 'length', 'metric')}` };
  };
}
