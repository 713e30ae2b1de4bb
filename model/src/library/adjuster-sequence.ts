import { LIMITS, MESH_LIMITS, entryBase, type Entry } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import '../base/zod';
import * as z from 'zod';
import { ORIGINS } from './origins';

/** Which adjuster: on the side of the ring’s back, or on the other. */
export const ADJUSTER_SIDES = ['ring', 'far', 'both'] as const;
export const ADJUSTER_WAYS = ['in', 'out'] as const;

const torque = entrySchema('torque', { min: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
const length = entrySchema('length', MESH_LIMITS.backlashMm);

/** Up to when an adjuster is turned. */
export const untilSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('hand') }),
  z.strictObject({ of: z.literal('zero-lash') }),
  z.strictObject({ of: z.literal('torque'), value: torque }),
  z.strictObject({ of: z.literal('backlash'), value: length }),
  z.strictObject({ of: z.literal('growth'), value: length }),
  z.strictObject({ of: z.literal('notches'), value: z.int().min(0).max(200) }),
  z.strictObject({ of: z.literal('next-notch') }),
]);
export type Until = z.infer<typeof untilSchema>;

/** One move of an adjuster sequence. */
export const adjusterMoveSchema = z.strictObject({
  side: z.enum(ADJUSTER_SIDES),
  way: z.enum(ADJUSTER_WAYS),
  until: untilSchema,
});
export type AdjusterMove = z.infer<typeof adjusterMoveSchema>;

/** How adjusters are run up, as the maker’s sheet of the axle says it; null where nobody has read one. */
export const adjusterSequenceSchema = z
  .strictObject({
    moves: z.array(adjusterMoveSchema).min(1).max(20),
    origin: z.enum(ORIGINS),
    where: z.string().trim().max(120),
  })
  .nullable();
export type AdjusterSequence = NonNullable<z.infer<typeof adjusterSequenceSchema>>;

/** Without a sheet’s own: common practice, and no figures. It ends on a lock notch on both sides, its last move the far side in. */
export const BUILT_IN_SEQUENCE: readonly AdjusterMove[] = [
  { side: 'far', way: 'in', until: { of: 'hand' } },
  { side: 'ring', way: 'in', until: { of: 'zero-lash' } },
  { side: 'ring', way: 'out', until: { of: 'next-notch' } },
  { side: 'far', way: 'in', until: { of: 'next-notch' } },
];

const SIDE_WORDS = { ring: 'Ring side', far: 'Far side', both: 'Both sides' } as const;

/** Up to when, in words. @param said a length or torque in the units of whoever looks */
export function untilWords(until: Until, said: (value: Entry) => string): string {
  switch (until.of) {
    case 'hand':
      return 'to where the hand feels it';
    case 'zero-lash':
      return 'until there is no backlash';
    case 'torque':
      return `to ${said(until.value)}`;
    case 'backlash':
      return `until backlash reads ${said(until.value)}`;
    case 'growth':
      return `until the case has grown by ${said(until.value)}`;
    case 'notches':
      return `by ${until.value} ${until.value === 1 ? 'notch' : 'notches'}`;
    case 'next-notch':
      return 'to its next lock notch';
  }
}

export const adjusterMoveWords = ({ side, way, until }: AdjusterMove, said: (value: Entry) => string): string =>
  `${SIDE_WORDS[side]} ${way}, ${untilWords(until, said)}.`;

/**
 * What of a sequence can’t be worked: its last move has to seat the carrier, and what is asked for must be something.
 * @returns why, in words; null where it can be worked
 */
export function sequenceFault(moves: readonly AdjusterMove[]): string | null {
  const last = moves.at(-1);
  if (last && last.way === 'out') return 'Its last move goes out: play is left behind the cup. The last one goes in.';
  const nothing = moves.findIndex(
    ({ until }) => 'value' in until && (typeof until.value === 'object' ? entryBase(until.value) : until.value) === 0,
  );
  return nothing < 0 ? null : `Move ${nothing + 1} goes to nothing: say how far.`;
}
