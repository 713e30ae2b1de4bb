import { InputError } from '../base/errors';
import { COUNT, axlePrior, changeSlot, learnAxle, spreadOf, type Changes, type Spread } from './axle-model';
import { checkJob, type MeshJob } from './job';

/** Ours: axles of one spec differ among themselves by half of what any two axles do. */
const AMONG = 0.5;
/** So many past axles at most are weighed. */
const MOST = 40;

/** What one past axle's own readings say: its belief less what was thought before; null where that is nothing. */
function saidOf(belief: Spread, before: Spread): Spread | null {
  const precision = 1 / belief.deviation ** 2 - 1 / before.deviation ** 2;
  if (precision <= 1e-6 / before.deviation ** 2) return null;
  const mean = (belief.mean / belief.deviation ** 2 - before.mean / before.deviation ** 2) / precision;
  return { mean, deviation: Math.sqrt(1 / precision) };
}

/**
 * What depth and ring do to backlash and patterns, as it is thought of an axle before it is read, learned from axles of the same
 * spec that were set up before. Each past axle speaks as loudly as its own tries were sure. Axles of one spec are taken to differ
 * among themselves by half of what we think of any two, so that the next one stays unsure by that much (normal–normal, in closed
 * form). Without past axles it is what we think of any.
 * Not counted: where the right position lies and how readings scatter: both stay ours.
 * @param set teeth of the axle that is to be set up; another ratio of one spec moves what backlash is thought to do, by the geometry
 * @param past newest first; one with a single try teaches next to nothing, those beyond 40 are left out
 * @throws InputError naming the field of a job that can't be read
 */
export function learnedChanges(
  set: { readonly ringTeeth: number; readonly pinionTeeth: number },
  past: readonly MeshJob[],
): Changes {
  const start = axlePrior({ ...set, middleMm: 0 }).perMm;
  const learned = past.slice(0, MOST).map((job, i) => {
    try {
      const ready = checkJob(job);
      return { before: ready.prior.perMm, belief: learnAxle(ready.prior, ready.values).belief };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      throw new InputError(`past[${i}].${error.field}`, error.message, error.allowed);
    }
  });
  const spread = (observed: number, axis: 0 | 1): Spread => {
    const ours = (start[observed] as readonly [Spread, Spread])[axis];
    const among = AMONG * ours.deviation;
    // The spec's own mean begins where we begin, with what is left of our spread.
    let precision = 1 / (ours.deviation ** 2 - among ** 2);
    let weighted = ours.mean * precision;
    for (const { before, belief } of learned) {
      const then = (before[observed] as readonly [Spread, Spread])[axis];
      const said = saidOf(spreadOf(belief, changeSlot(observed, axis)), then);
      if (!said) continue;
      const each = 1 / (said.deviation ** 2 + among ** 2);
      precision += each;
      weighted += each * (said.mean - then.mean + ours.mean);
    }
    return { mean: weighted / precision, deviation: Math.sqrt(1 / precision + among ** 2) };
  };
  return Array.from({ length: COUNT }, (_, observed) => [spread(observed, 0), spread(observed, 1)] as const);
}
