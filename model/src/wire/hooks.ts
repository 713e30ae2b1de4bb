import { idSchema } from '../base/fields';
import { AXLES } from '../base/names';
import { BOARD_STATES } from '../board/board-states';
import '../base/zod';
import * as z from 'zod';

/** What a program of somebody else can be told of; `test` when its owner tries it out. */
export const HOOK_EVENTS = ['build.state', 'gate.signed', 'part.needed'] as const;
export type HookEventType = (typeof HOOK_EVENTS)[number];

const url = z
  .string()
  .trim()
  .max(500)
  .refine((text) => {
    if (!URL.canParse(text)) return false;
    const { protocol, username, password } = new URL(text);
    return /^https?:$/.test(protocol) && username === '' && password === '';
  }, 'must be an address with http or https, without a name or password in it');

export const hookWriteSchema = z.strictObject({
  url,
  events: z
    .array(z.enum(HOOK_EVENTS))
    .min(1)
    .max(HOOK_EVENTS.length)
    .refine((all) => new Set(all).size === all.length, { message: 'one stands twice' }),
});
export type HookWrite = z.output<typeof hookWriteSchema>;

export const hookSchema = z.object({
  id: idSchema,
  url: z.string(),
  events: z.array(z.enum(HOOK_EVENTS)),
  /** When it took something last; null: not yet. */
  okAt: z.string().nullable(),
  /** Why it did not take the last one; empty where it did. */
  problem: z.string(),
  /** What is still to be told it. */
  waiting: z.int(),
});
export type Hook = z.output<typeof hookSchema>;

/** With the secret that its calls are signed with: it is shown once. */
export const newHookSchema = z.object({ id: idSchema, secret: z.string() });

const wantedPart = z.object({
  axle: z.enum(AXLES),
  /** Its id on the parts list of the axle. */
  part: z.string(),
  name: z.string(),
  count: z.int(),
  supplier: z.string(),
  number: z.string(),
  /** As the list says it, in the shop’s currency; null where nobody has asked. */
  price: z.number().nullable(),
});

const of = { build: idSchema, name: z.string() };
/** What is told: no customer, no reading. */
export const hookEventSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('build.state'), ...of, before: z.enum(BOARD_STATES), state: z.enum(BOARD_STATES) }),
  z.object({ type: z.literal('gate.signed'), ...of, gate: z.string(), signedBy: z.string(), entry: idSchema }),
  z.object({ type: z.literal('part.needed'), ...of, parts: z.array(wantedPart).readonly() }),
  z.object({ type: z.literal('test') }),
]);
export type HookEvent = z.output<typeof hookEventSchema>;

/** A part that is to be ordered, and what for. */
export const partsToOrderSchema = z.array(
  wantedPart.extend({ build: idSchema, buildName: z.string(), promised: z.string().nullable() }),
);
export type PartsToOrder = z.output<typeof partsToOrderSchema>;
