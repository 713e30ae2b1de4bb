import type { Operation, SectionPart } from '@hot-spline/core';
import type { MeshAxle } from '../mesh/axle';
import type { Trial } from '../mesh/schema';
import type { StepState } from '../plan/stand';
import { partsOfPiece } from './pieces';

/** How a part is: off, in for a trial, in, or made for good. */
export type Look = 'out' | 'trial' | 'in' | 'made';
export type Looks = Readonly<Partial<Record<SectionPart, Look>>>;

/** What is made for good once a step has done this. */
const MADE: Readonly<Partial<Record<Operation['acts'][number], readonly SectionPart[]>>> = {
  'ring-bolts': ['ring-bolts'],
  'side-bearing-press': ['side-bearing-left', 'side-bearing-right'],
  'pinion-bearing-final': ['head-bearing'],
  'seal-in': ['seal'],
  crush: ['spacer', 'pinion-nut'],
  'support-oring': ['support-bolts'],
  'carrier-final': ['cap-bolts', 'side-cover-bolts'],
  cover: ['cover-bolts', 'case-bolts'],
};

/** What the state of a trial says of single parts. */
function ofTrial(state: Trial): Looks {
  const bearings: Look = state.pinionBearings === 'set-up' ? 'trial' : 'in';
  const sides: Look = state.sideBearings === 'set-up' ? 'trial' : 'in';
  return {
    'head-bearing': bearings,
    'tail-bearing': bearings,
    'head-cup': bearings,
    'tail-cup': bearings,
    spacer: state.spacer === 'none' ? 'out' : state.spacer === 'old' ? 'trial' : 'in',
    seal: state.seal === 'out' ? 'out' : 'in',
    'pinion-nut': state.nut === 'old' ? 'trial' : 'in',
    'side-bearing-left': sides,
    'side-bearing-right': sides,
    'cap-bolts': state.caps === 'torqued' ? 'made' : state.caps === 'snug' ? 'trial' : 'out',
    'cap-left': state.caps === 'off' ? 'out' : 'in',
    'cap-right': state.caps === 'off' ? 'out' : 'in',
  };
}

/** What the steps done so far have taken off, put back and made for good; of one taken off again nothing is made any more. */
function ofSteps(steps: readonly StepState[]): Looks {
  const looks: Partial<Record<SectionPart, Look>> = {};
  for (const { status, step } of steps) {
    if (status !== 'done') continue;
    for (const { part } of step.returns) for (const one of partsOfPiece(part)) looks[one] = 'in';
    for (const { part } of step.takes) for (const one of partsOfPiece(part)) looks[one] = 'out';
    for (const act of step.acts) for (const one of MADE[act] ?? []) looks[one] = 'made';
  }
  return looks;
}

/**
 * The state of the metal, part by part: by the steps that are done, and by the state of the trial for what it says, while the pinion
 * and the carrier are in. What nobody has said is in.
 * @param steps of the order as worked; null where no work is planned
 */
export function looksOf(steps: readonly StepState[] | null, mesh: MeshAxle | null): Looks {
  const done = ofSteps(steps ?? []);
  // As it came nobody has a trial to describe.
  if (!mesh?.now || mesh.now.number === 0) return done;
  const trial = ofTrial(mesh.setup.state);
  const looks: Partial<Record<SectionPart, Look>> = { ...done };
  for (const [part, look] of Object.entries(trial) as [SectionPart, Look][]) {
    // Steps know what has been made for good; the trial knows what is in at all, once it has been put together.
    if (looks[part] !== 'made' || look === 'trial') looks[part] = look;
  }
  // Put together for the trial, whatever the trays say: a pinion goes in without a step that returns it, a carrier where nobody ticks
  // steps. Where its step put the carrier back, a later one that takes it out again is believed.
  const back = (steps ?? []).some(
    ({ status, step }) => status === 'done' && step.returns.some(({ part }) => part === 'Carrier'),
  );
  const inTrial = [
    ...partsOfPiece('Pinion'),
    ...partsOfPiece('Pinion shims'),
    ...(back ? [] : [...partsOfPiece('Carrier'), ...partsOfPiece('Side shims, left and right')]),
  ];
  for (const part of inTrial) if (looks[part] === 'out') looks[part] = 'in';
  return looks;
}
