import { FIGURES, SECTION_PARTS, axleSection, type SectionPart } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { orderOfWork } from '../assembly/steps';
import { newBuild } from '../start/new-build';
import { permitted, triples } from '../testing/order-checker';
import { looksOf } from './looks';
import { PART_NAMES } from './names';
import { sectionOfAxle } from './of-axle';
import { OUTSIDE_OF_IT, isInSection, partsOfPiece } from './pieces';
import { effectOn, effectWords, touchesOf } from './touches';

/** Every so many-th triple of facts: steps and trays of all kinds of job. */
const EACH = 11;
const orders = function* () {
  let at = 0;
  for (const facts of triples()) if (permitted(facts) && at++ % EACH === 0) yield orderOfWork(facts);
};

describe('drawings of the steps', () => {
  it('every step of every order has one, or says why not; what it touches and takes is known', () => {
    const drawn = new Map<string, string>();
    for (const order of orders())
      for (const { id, drawing, takes, returns } of order) {
        drawn.set(id, drawing.of);
        if (drawing.of === 'none') expect(drawing.why.length).withContext(id).toBeGreaterThan(15);
        if (drawing.of === 'figure') expect(FIGURES).toContain(drawing.figure);
        if (drawing.of === 'section') for (const part of drawing.touches) expect(SECTION_PARTS).toContain(part);
        for (const { part } of [...takes, ...returns])
          expect(isInSection(part) !== OUTSIDE_OF_IT.includes(part))
            .withContext(`${id}: ${part}`)
            .toBeTrue();
      }
    expect(drawn.size).toBeGreaterThan(80);
    // A sentence in place of a drawing is the exception.
    expect([...drawn.values()].filter((of) => of === 'none').length).toBeLessThanOrEqual(6);
  });

  it('every part has a name, and every piece names parts', () => {
    expect(Object.keys(PART_NAMES).sort()).toEqual([...SECTION_PARTS].sort());
    for (const part of partsOfPiece('Carrier')) expect(SECTION_PARTS).toContain(part);
    expect(partsOfPiece('Wheels')).toEqual([]);
  });
});

describe('the section of a build', () => {
  it('is drawn from its own teeth, construction and sides; a new one has a section too', () => {
    const build = newBuild('New');
    const axle = build.axles.rear;
    if (!axle) throw new Error('no rear axle');
    const of = sectionOfAxle('rear', axle, null);
    expect(of.construction).toBe('integral-head-shim');
    expect(axleSection(of).upper).toBe('right');
    const front = sectionOfAxle('front', { ...axle, finalDrive: { ring: 37, pinion: 9 } }, null);
    if (front.construction === 'electric-reduction') throw new Error('not so');
    expect([front.ringTeeth, front.pinionTeeth, front.flangeLooks]).toEqual([37, 9, 'rearward']);
    expect(axleSection(front).upper).toBe('left');
  });

  it('of a build that nobody has opened everything is in', () => {
    const derived = deriveBuild(newBuild('New'), []);
    expect(looksOf(derived.work.rear?.steps ?? null, derived.mesh.rear ?? null)).toEqual({});
  });
});

type Done = Parameters<typeof looksOf>[0];
const done = (...steps: { takes?: string[]; returns?: string[]; acts?: string[] }[]): Done =>
  steps.map(({ takes = [], returns = [], acts = [] }) => ({
    status: 'done',
    step: { takes: takes.map((part) => ({ part })), returns: returns.map((part) => ({ part })), acts },
  })) as unknown as Done;

describe('the state of the metal in the section', () => {
  const look = (part: SectionPart, ...steps: Parameters<typeof done>) => looksOf(done(...steps), null)[part];

  it('what is off is out, with what hangs on it; what comes back is in', () => {
    expect(look('ring', { takes: ['Carrier'] })).toBe('out');
    expect(look('ring', { takes: ['Carrier'] }, { returns: ['Carrier'] })).toBe('in');
    expect(look('cover', { takes: ['Cover bolts'] })).toBe('out');
    expect(look('case', { takes: ['Carrier'] })).toBeUndefined();
  });

  it('what is made for good shows so, and no longer once it is off again', () => {
    expect(look('ring-bolts', { acts: ['ring-bolts'], returns: ['Ring bolts'] })).toBe('made');
    expect(look('ring-bolts', { acts: ['ring-bolts'] }, { takes: ['Ring bolts'] })).toBe('out');
    expect(look('spacer', { acts: ['crush'] })).toBe('made');
  });

  it('a trial says what is only tried: set-up bearings, no spacer, caps that are not torqued', () => {
    const setup = {
      state: { pinionBearings: 'set-up', spacer: 'none', seal: 'out', nut: 'old', sideBearings: 'used', caps: 'snug' },
    };
    const mesh = { now: { number: 2 }, setup } as unknown as Parameters<typeof looksOf>[1];
    const looks = looksOf(done({ takes: ['Pinion', 'Pinion seal', 'Carrier'] }), mesh);
    expect(looks['head-bearing']).toBe('trial');
    expect(looks['cap-bolts']).toBe('trial');
    expect(looks.spacer).toBe('out');
    expect(looks.seal).toBe('out');
    // It was put together for the trial, whatever the trays say.
    expect([looks.pinion, looks.ring]).toEqual(['in', 'in']);
    // Whole: what hangs on the carrier came in with it.
    expect([looks['ring-bolts'], looks['pack-left']]).toEqual(['in', 'in']);
    // Where steps are ticked, the one that takes it out again is believed.
    const again = looksOf(done({ takes: ['Carrier'] }, { returns: ['Carrier'] }, { takes: ['Carrier'] }), mesh);
    expect([again.carrier, again.ring, again.pinion]).toEqual(['out', 'out', undefined]);
    const came = { ...mesh, now: { number: 0 } } as typeof mesh;
    expect(looksOf(null, came)).toEqual({});
  });
});

describe('what a shim does, in words', () => {
  const axle = {
    ring: 41,
    pinion: 11,
    shimMoves: 'shallower' as const,
    bearingMoves: 'deeper' as const,
    ringBy: 'outboard-shims' as const,
    notchMm: null,
    setup: { ringSide: 'left', sideShims: 'behind-cup', depth: { chain: [{ name: 'Gasket', sign: 'plus' }] } },
  } as unknown as Parameters<typeof touchesOf>[0];
  const said = (label: RegExp, of = axle): string => {
    const touch = touchesOf(of, 'inch').find((one) => label.test(one.label));
    if (!touch) throw new Error(`nothing is ${label}`);
    return effectWords(effectOn(of, touch.touch), 'inch').replaceAll('\u00a0', ' ');
  };

  it('says it in the sign of this axle', () => {
    expect(said(/^Pinion shim/)).toBe('pinion shallower 5.0 thou, backlash +0.9 thou');
    expect(said(/^Head bearing/)).toBe('pinion deeper 5.0 thou, backlash −0.9 thou');
    expect(said(/^Gasket/)).toBe('pinion deeper 5.0 thou, backlash −0.9 thou');
    expect(said(/^Left shim/)).toBe(
      'ring closer 2.5 thou (5.0 thou once no preload is left), backlash −1.8 thou, side bearings 5.0 thou tighter',
    );
    expect(said(/from right to left/)).toBe('ring closer 5.0 thou, backlash −3.5 thou');
  });

  it('adjusters go by notches, and say nothing while a notch has no travel; an axle without a direction says so', () => {
    const adjusters = { ...axle, ringBy: 'adjusters' as const, notchMm: 0.0508 };
    expect(said(/^Left in one notch/, adjusters)).toBe('ring closer 2.0 thou, backlash −1.4 thou');
    expect(touchesOf({ ...axle, ringBy: 'none' }, 'inch')).toEqual([]);
    expect(touchesOf({ ...adjusters, notchMm: null }, 'inch').some(({ part }) => part === 'adjuster-left')).toBeFalse();
    expect(said(/^Pinion shim/, { ...axle, shimMoves: null })).toContain('has to be said');
  });
});
