import { recipesOf, undrawn } from '@hot-spline/core';
import { Deriver } from './deriver';
import { defineCapability, type Given } from './capability';
import type { Inputs } from './capability';
import { allWork, knownWork, needsOf, neededParts, type GateContext } from './work';
import { operation, run } from './operation';

const step = <const Id extends string>(id: Id) =>
  operation('loop', id, () => true, {
    title: id,
    does: [id],
    drawing: undrawn('of a test'),
    after: [],
    pass: 'right',
    minutes: 1,
    parts: ['rag'],
  });
const context: GateContext = { asks: { A: ['backlash'], B: ['backlash'] }, said: () => null };
const ids = (runs: Parameters<typeof recipesOf>[0]): string =>
  recipesOf(runs)
    .map(({ id }) => id)
    .join(' ');

describe('the order of work from what each brings', () => {
  it('a run stands behind the step that it names, whoever brings that; runs behind the same step follow each other', () => {
    expect(
      ids([
        run('loop', [step('c')], 'b'),
        run('loop', [step('x')], 'a'),
        run('loop', [step('a')]),
        run('loop', [step('b')], 'a'),
        run('decide', [step('first')]),
      ]),
    ).toBe('first a x b c');
  });

  it('a run behind a step that its moment has not is refused by name', () => {
    expect(() => recipesOf([run('loop', [step('a')]), run('final', [step('b')], 'a')])).toThrowError(
      RangeError,
      'final has no step a to stand behind',
    );
  });

  it('two copies of a step in two moments: each run stands behind the one of its own', () => {
    const twice = [run('loop', [step('a')]), run('final', [step('a'), step('z')])];
    expect(ids([...twice, run('final', [step('b')], 'a')])).toBe('a a b z');
  });

  it('what a step buys is said by whoever brings it, and else by nobody', () => {
    const { parts } = allWork([{ steps: [], parts: { rag: { name: 'Rag', count: 3, mind: 'Clean.' } } }, undefined]);
    const steps = [
      { id: 'wipe', parts: ['rag'] },
      { id: 'dry', parts: ['rag'] },
    ] as never;
    expect(neededParts(steps, parts)).toEqual([
      { id: 'rag', name: 'Rag', count: 3, mind: 'Clean.', steps: ['wipe', 'dry'] },
    ]);
    expect(() => neededParts(steps, {})).toThrowError(RangeError, 'no capability brings the part rag');
  });

  it('needs of a gate stand in the order in which they are read', () => {
    const need = (of: 'backlash' | 'sheet' | 'total') => ({ of, need: of, met: true, says: '' });
    const known = knownWork(
      [{ needs: { A: () => [need('total'), need('backlash')] } }, { needs: { A: () => [need('sheet')] } }],
      [],
    );
    expect(needsOf('A', known, context).map(({ of }) => of)).toEqual(['sheet', 'backlash', 'total']);
    expect(needsOf('B', known, context)).toEqual([]);
  });
});

describe('what cannot be worked out', () => {
  it('meets no gate: its needs would be missing, and a gate with a need less would open', () => {
    const broken = defineCapability({
      name: 'broken',
      needs: [],
      figures: {},
      subjects: [],
      place: { sheet: 'mesh', field: 'a' },
      station: 'final',
      inputs: () => ({}),
      derive: (): object => {
        throw new Error('a mistake');
      },
      knows: () => ({ needs: { B: () => [] } }),
    });
    let seen: Given | null = null;
    const looks = defineCapability({
      name: 'looks',
      needs: 'all-before',
      figures: {},
      subjects: [],
      place: { sheet: 'work', field: 'a' },
      station: 'final',
      inputs: () => ({}),
      derive: (_, __, given) => void (seen = given),
    });
    new Deriver([broken, looks], true).derive({ build: { assumed: [] } } as unknown as Inputs);
    const needs = needsOf('B', (seen as unknown as Given).work('rear'), context);
    expect(needs.map(({ of, met, says }) => [of, met, says])).toEqual([['worked-out', false, 'not broken']]);
  });
});
