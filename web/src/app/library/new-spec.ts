import { entryOf } from '@hot-spline/core';
import { USUAL_SCHOOLS, newAxleSpec, newShimBox, type GearboxSpec, type LibrarySpec } from '@hot-spline/model';

export function newGearboxSpec(name: string): GearboxSpec {
  return {
    kind: 'gearbox',
    name,
    box: { value: 'synchro', origin: 'guess' },
    torqueLimit: null,
    gears: [{ name: '1', ratio: entryOf(3.3, ''), origin: 'guess' }],
    inside: null,
  };
}

/** A spec of a kind to start from. */
export function newSpec(kind: LibrarySpec['kind']): LibrarySpec {
  switch (kind) {
    case 'axle':
      return newAxleSpec('New axle');
    case 'gearbox':
      return newGearboxSpec('New gearbox');
    case 'shims':
      return newShimBox('New drawer');
    case 'friction':
      return { kind, name: 'New plates', oil: '', readings: [] };
    case 'instrument':
      return {
        kind,
        name: 'New instrument',
        reads: {
          of: 'length',
          from: entryOf(0, 'mm'),
          to: entryOf(10, 'mm'),
          resolution: entryOf(0.01, 'mm'),
          plusMinus: entryOf(0.01, 'mm'),
        },
        checked: null,
      };
    case 'set-up-bearing':
      return { kind, name: 'New set-up bearing', taller: entryOf(0, 'mm'), origin: 'not-said' };
    case 'schools':
      return { kind, name: 'How we do it', ...USUAL_SCHOOLS, ringGearNote: '' };
  }
}
