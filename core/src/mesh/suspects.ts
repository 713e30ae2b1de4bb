import { evidence, learnAxle, type Learned } from './axle-model';
import { SUSPECTS, checkJob, type MeshJob, type Ready, type Suspect } from './job';

/** Ours: one axle in twenty has each of them told or read the wrong way round. */
const SHARE = 0.05;
/** Ours: it is named from this chance on. */
const NAMED = 0.1;

/** Something that may be the other way round than it was told, and the chance that it is, by all readings. */
export interface Suspected {
  readonly what: Suspect;
  readonly chance: number;
}

/** Whether the tries stand in two places at least: before that nothing tells one way round from the other. */
const moved = ({ tries }: MeshJob): boolean =>
  tries.some(
    ({ pinionShimMm, ringShiftMm }) =>
      Math.abs(pinionShimMm - (tries[0]?.pinionShimMm ?? 0)) > 1e-9 ||
      Math.abs(ringShiftMm - (tries[0]?.ringShiftMm ?? 0)) > 1e-9,
  );

/**
 * The readings taken as they were told and each way round, by how likely they are [Bayes; each way has one chance in twenty before
 * anything is read, ours].
 * Not counted: two things the wrong way round at once.
 * @returns the likeliest way with what it teaches, and what is named, likeliest first
 * @throws InputError naming the field
 */
export function likeliest(job: MeshJob): {
  readonly as: Suspect | null;
  readonly ready: Ready;
  readonly learned: Learned;
  readonly suspects: readonly Suspected[];
} {
  const whole = (as: Suspect | null, ready: Ready) => ({ as, ready, learned: learnAxle(ready.prior, ready.values) });
  const told = checkJob(job);
  if (!moved(job)) return { ...whole(null, told), suspects: [] };
  const ways = [null, ...SUSPECTS].map((as) => {
    const ready = as ? checkJob(job, as) : told;
    const { prior, values } = ready;
    const log = evidence(prior, values, learnAxle(prior, values, 1)) + Math.log(as ? SHARE : 1 - 3 * SHARE);
    return { as, ready, log };
  });
  const most = Math.max(...ways.map(({ log }) => log));
  const total = ways.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
  const suspects = ways
    .flatMap(({ as, log }) => (as ? [{ what: as, chance: Math.exp(log - most) / total }] : []))
    .filter(({ chance }) => chance >= NAMED)
    .sort((a, b) => b.chance - a.chance);
  const { as, ready } = ways.find(({ log }) => log === most) ?? { as: null, ready: told };
  return { ...whole(as, ready), suspects };
}
