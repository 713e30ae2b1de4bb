import { patchWords, subjects, type Reading } from '@hot-spline/model';
import { unitsSaid } from './units-said';

/** The subject of a reading: what its value is, and its words. */
export const kindOf = (reading: Reading) => subjects.find(({ what }) => what === reading.subject.what);

/** A value as it was typed, or in words. */
export function typedText({ value }: Reading): string {
  switch (value.of) {
    case 'places':
      return value.entries.map(unitsSaid).join('; ');
    case 'pattern':
      return `drive ${patchWords(value.drive)}; coast ${patchWords(value.coast)}`;
    case 'assembly': {
      const pack = (pieces: readonly { typed: string }[]): string =>
        pieces.map(({ typed }) => typed).join(' + ') || 'none';
      const { leftNotches, rightNotches } = value;
      const notches = leftNotches || rightNotches ? `, notches ${leftNotches} and ${rightNotches}` : '';
      return `pinion ${pack(value.pinion)}, left ${pack(value.left)}, right ${pack(value.right)}${notches}`;
    }
    case 'choice':
      return value.choice;
    case 'signature':
      return value.name;
    case 'photos':
      return value.photos.length === 1 ? '1 photo' : `${value.photos.length} photos`;
    case 'text':
      return value.text;
    case 'ticks':
      return value.ticks.join(', ');
    case 'number':
      return value.entries.map(unitsSaid).join('; ');
  }
}
