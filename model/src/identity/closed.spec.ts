import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { newAxleSpec } from '../library/new-spec';
import { done, entry, jobOf, look } from '../testing/bench';
import { identityFigures } from './ids';
import { TURNED, ratioTurns } from './readings';

const turns = (prop: number, left: number, right: number) =>
  TURNED.map((of, i) =>
    entry(ratioTurns.of({ axle: 'rear', of }), {
      of: 'number',
      counts: 'one',
      entries: [entryOf([prop, left, right][i] ?? 0, '')],
    }),
  );

describe('what turns say of a closed axle', () => {
  // A unit goes in, the gears stay: what turns is what the build names.
  const build = jobOf('unit-change');
  const rear = build.axles.rear;
  if (!rear) throw new Error('no rear axle');
  const { ring, pinion } = rear.finalDrive;
  const found = (ledger: ReturnType<typeof turns>, of = build) =>
    deriveBuild(of, ledger).findings.find(({ id }) => id === 'identity.closed.rear');

  it('agrees with the set of the build within what it was read to, and names the pairs', () => {
    const ten = turns((10 * ring) / pinion, 10, 10);
    const finding = found(ten);
    expect(finding?.verdict).toBe('fits');
    expect(finding?.say('metric').detail).toContain(`${ring}/${pinion}`);
    expect(deriveBuild(build, ten).figures.get(identityFigures.closed('rear'))?.value).toBeCloseTo(ring / pinion, 9);
  });

  it('another ratio is a watch; where another pair goes in it says what comes out, and no more', () => {
    const other = turns((10 * (ring + 4)) / pinion, 10, 10);
    expect(found(other)?.verdict).toBe('watch');
    const swap = found(other, jobOf('ratio-swap'));
    expect(swap?.verdict).toBe('fits');
    expect(swap?.say('metric').detail).toContain('is to go in');
    const said = jobOf('unit-change');
    if (said.axles.rear?.work) said.axles.rear.work.facts = { gears: 'used' };
    expect(found(other, said)?.verdict).toBe('fits');
  });

  it('no tooth pair inside it is a watch whatever goes in, and does no step', () => {
    // 1.1: fewer ring teeth to a pinion tooth than anything that meshes at an angle here.
    const none = turns(11, 10, 10);
    expect(found(none, jobOf('ratio-swap'))?.verdict).toBe('watch');
    expect(look(jobOf('ratio-swap'), none).step('ratio-closed')?.status).toBe('open');
    expect(look(jobOf('ratio-swap'), none).step('ratio-closed')?.missing).toEqual([]);
  });

  it('two readings are none, and turns that cancel out are refused at their field', () => {
    expect(found(turns(40, 10, 10).slice(0, 2))).toBeUndefined();
    const refused = deriveBuild(build, turns(40, 10, -10)).findings.find(
      ({ place }) => place.field === 'turns-left-rear',
    );
    expect(refused?.verdict).toBe('stop');
  });

  it('an electric unit has no prop shaft, whatever somebody wrote', () => {
    const electric = structuredClone(build);
    if (electric.axles.rear) electric.axles.rear.identity = newAxleSpec('E', 'electric-reduction', 'measured');
    expect(found(turns(40, 10, 10), electric)).toBeUndefined();
  });

  it('the three readings do the step; two don’t, and it is behind whoever has opened the axle', () => {
    const status = (ledger: Parameters<typeof look>[1]) => look(build, ledger).step('ratio-closed');
    expect(status([])?.missing).toEqual(['turns of prop shaft and wheels not read']);
    expect(status(turns(40, 10, 10).slice(0, 2))?.status).toBe('open');
    expect(status(turns((10 * ring) / pinion, 10, 10))?.byReading).toBeTrue();
    expect(status([done('carrier-out')])?.passed).toBeTrue();
  });

  it('of pairs inside it those come first that the axle is known to take', () => {
    const known = structuredClone(build);
    const spec = newAxleSpec('Known', 'integral-head-shim', 'measured');
    spec.sets = [
      { ring: 37, pinion: 10, origin: 'maker', price: null, leadDays: null, torqueLimit: null, welded: false },
    ];
    if (known.axles.rear) known.axles.rear.identity = spec;
    expect(found(turns(18.65, 10, 0), known)?.say('metric').detail).toContain('In it: 37/10');
  });
});
