import { entryOf } from '@hot-spline/core';
import { deriveBuild, fieldWords, mergeChanges, valueWords } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { CAPABILITIES } from '../sheets';
import { tally } from './findings';
import { KeyReader } from './keys';
import { stations } from './stations';

const press = (key: string, more: Partial<KeyboardEvent> = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  target: null,
  ...more,
});

describe('keys', () => {
  it('read places, commands, undo and redo', () => {
    const reader = new KeyReader();
    expect(reader.read(press('g'))).toBeNull();
    expect(reader.read(press('p'))).toBeNull();
    expect(reader.read(press('k'))).toEqual({ kind: 'go', key: 'pk' });
    expect(reader.read(press('p'))).toBeNull();
    // What is no letter gives the place up; after it a key means what it always does.
    for (const key of ['g', 'm', 'Escape']) expect(reader.read(press(key))).toBeNull();
    expect(reader.read(press('/'))).toEqual({ kind: 'find' });
    expect(reader.read(press('m'))).toEqual({ kind: 'measure' });
    expect(reader.read(press('z', { ctrlKey: true }))).toEqual({ kind: 'undo' });
    expect(reader.read(press('Z', { ctrlKey: true, shiftKey: true }))).toEqual({ kind: 'redo' });
    expect(reader.read(press('u', { ctrlKey: true }))).toBeNull();
  });

  it('never fire while typing', () => {
    const reader = new KeyReader();
    const target = document.createElement('input');
    for (const key of ['g', '/', 'm', 'u', '?']) expect(reader.read(press(key, { target }))).toBeNull();
    expect(reader.read(press('z', { ctrlKey: true, target }))).toBeNull();
    // With nothing unsaved in it there is nothing that the browser could take back: the app's own step is meant.
    target.dataset['unsaved'] = 'no';
    expect(reader.read(press('z', { ctrlKey: true, target }))).toEqual({ kind: 'undo' });
    expect(reader.read(press('y', { ctrlKey: true, target }))).toEqual({ kind: 'redo' });
    expect(reader.read(press('u', { target }))).toBeNull();
    target.dataset['unsaved'] = 'yes';
    expect(reader.read(press('z', { ctrlKey: true, target }))).toBeNull();
    target.type = 'range';
    expect(reader.read(press('u', { target }))).toEqual({ kind: 'units' });
  });
});

describe('the Line', () => {
  const texts = (change: (build: ReturnType<typeof plateBuild>) => void, system: 'inch' | 'metric' = 'metric') => {
    const build = plateBuild();
    change(build);
    return stations(
      build,
      deriveBuild(build, []),
      system,
      CAPABILITIES.flatMap((one) => one.stations),
    );
  };

  it('runs from engine to tyres with the figures of the operating point', () => {
    const line = texts(() => undefined);
    expect(line.map((s) => s.kind)).toEqual([
      'engine',
      'coupling',
      'gearbox',
      'prop',
      'final',
      'unit',
      'packs',
      'shafts',
      'tyres',
    ]);
    // new build: 200 N·m at 4000 rpm, third gear 1.4, 41/10 [exact]
    expect(line[0]?.main.replace(/\u00a0/g, ' ')).toBe('200 N·m');
    expect(line[3]?.main.replace(/\u00a0/g, ' ')).toBe('280 N·m');
    expect(line[4]?.main).toBe('4.100');
  });

  it('leaves out what the vehicle has not, and shows what it has', () => {
    const electric = texts((build) => {
      build.engine.kind = 'electric';
      build.coupling = { kind: 'direct' };
      build.gearbox.kind = 'fixed';
      if (build.axles.rear) build.axles.rear.unit.type = 'open';
    });
    expect(electric.map((s) => s.kind)).toEqual(['engine', 'gearbox', 'final', 'unit', 'shafts', 'tyres']);
    const truck = texts((build) => (build.transfer = { ranges: [{ name: 'Low', ratio: entryOf(2.5, '') }] }));
    expect(truck.find((s) => s.kind === 'transfer')?.main).toBe('2.5');
  });

  it('marks a station with its worst finding', () => {
    const line = texts((build) => (build.coupling = { kind: 'clutch', capacity: entryOf(100, 'N·m') }));
    expect(line.find((s) => s.kind === 'coupling')?.verdict).toBe('stop');
  });
});

describe('findings and conflicts', () => {
  it('are counted most serious first', () => {
    const derived = deriveBuild(plateBuild(), []);
    expect(tally(derived.findings)).toContain('3 not yet');
    expect(tally([])).toBe('all fits');
  });

  it('a conflict names the field by its own label and both values', () => {
    const base = plateBuild();
    const [ours, theirs] = [structuredClone(base), structuredClone(base)];
    if (ours.axles.rear && theirs.axles.rear) {
      ours.axles.rear.tyre.designation = '245/40R18';
      theirs.axles.rear.tyre.designation = '255/40R18';
    }
    const said = mergeChanges(base, ours, theirs).overlaps.map((one) => [
      fieldWords(one.path),
      valueWords(one.ours),
      valueWords(one.theirs),
    ]);
    expect(said).toEqual([['Rear axle: tyre', '245/40R18', '255/40R18']]);
  });
});
