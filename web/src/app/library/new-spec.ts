import { entryOf } from '@hot-spline/core';
import { USUAL_SCHOOLS, type AxleSpec, type GearboxSpec, type LibrarySpec } from '@hot-spline/model';

/** An axle of which nothing is known but its name. */
export function newAxleSpec(name: string): AxleSpec {
  return {
    kind: 'axle',
    name,
    construction: { value: 'integral-head-shim', origin: 'guess' },
    ringDiameter: null,
    ringBolts: null,
    pinionSplines: null,
    shaftSplines: null,
    carriers: [],
    extras: { ringBolts: null, recalibration: null },
    sets: [],
  };
}

export function newGearboxSpec(name: string): GearboxSpec {
  return {
    kind: 'gearbox',
    name,
    box: { value: 'synchro', origin: 'guess' },
    torqueLimit: null,
    gears: [{ name: '1', ratio: entryOf(3.3, ''), origin: 'guess' }],
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
      return { kind, name: 'New drawer', pieces: [] };
    case 'friction':
      return { kind, name: 'New plates', oil: '', readings: [] };
    case 'schools':
      return { kind, name: 'How we do it', ...USUAL_SCHOOLS, ringGearNote: '' };
  }
}
