import { idSchema } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

/** What somebody may do: look, work on builds, or keep the shop. Each may do what those before it may. */
export const ROLES = ['looker', 'builder', 'owner'] as const;
export type Role = (typeof ROLES)[number];

/** Who may call a route: whoever reaches the server, or somebody of this role or a higher one. */
export type May = 'anyone' | Role;

/** Shortest password: NIST SP 800-63B asks for eight at the least, and OWASP says the same [from memory]. */
export const PASSWORD = { min: 8, max: 200 } as const;

/** The name that is stamped on what somebody writes. */
export const personName = z
  .string()
  .trim()
  .min(1)
  .max(60)
  .regex(/^\P{C}+$/u, 'must be plain characters');
export const password = z.string().min(PASSWORD.min).max(PASSWORD.max);
export const pin = z.string().regex(/^\d{4,12}$/, 'must be 4 to 12 digits');
const token = z.string().regex(/^[\w-]{43}$/, 'must be the one out of the link');

export const personSchema = z.object({ id: idSchema, name: personName, role: z.enum(ROLES) });
export type Person = z.output<typeof personSchema>;

/** Who asks, and whether the server wants to know. */
export const meSchema = z.object({
  /** `alone`: this machine alone, nobody signs in; `open`: whoever reaches it may do everything; `people`: everybody signs in. */
  door: z.enum(['alone', 'open', 'people']),
  /** Whether the shop has an owner: without one it opens to nobody but this machine. */
  owned: z.boolean(),
  person: personSchema.nullable(),
  /** Whether who is signed in has a PIN. */
  pin: z.boolean(),
  /** Others who signed in on this device and have a PIN: one tap and the PIN changes to them. */
  others: z.array(z.object({ id: idSchema, name: personName })),
});
export type Me = z.output<typeof meSchema>;

export const signInSchema = z.strictObject({ name: personName, password: z.string().max(PASSWORD.max) });
export const switchSchema = z.strictObject({ id: idSchema, pin });
export const signOutSchema = z.strictObject({ everywhere: z.boolean().default(false) });
export const ownerSchema = z.strictObject({ name: personName, password });
export const pinSchema = z.strictObject({ password: z.string().max(PASSWORD.max), pin: pin.nullable() });
export const changePasswordSchema = z.strictObject({ before: z.string().max(PASSWORD.max), password });
export const inviteSchema = z.strictObject({ role: z.enum(ROLES) });
export const acceptSchema = z.strictObject({ token, name: personName, password });
export const changePersonSchema = z
  .strictObject({ role: z.enum(ROLES).optional(), active: z.boolean().optional() })
  .refine(({ role, active }) => role !== undefined || active !== undefined, { message: 'must tell role or active' });

export const invitationSchema = z.object({
  id: idSchema,
  role: z.enum(ROLES),
  by: z.string(),
  until: z.string(),
  used: z.string().nullable(),
});
export const peopleSchema = z.object({
  people: z.array(
    personSchema.extend({
      active: z.boolean(),
      created: z.string(),
      /** When something was last asked in this name; null: never. */
      seen: z.string().nullable(),
      devices: z.int(),
    }),
  ),
  invitations: z.array(invitationSchema),
  /** Port at which a device learns in the clear to trust the shop’s own authority; null: it has none. */
  trustPort: z.int().nullable(),
});
export type People = z.output<typeof peopleSchema>;

/** What was done, by whom, from where; the newest first. */
export const auditSchema = z.array(
  z.object({ id: z.int(), at: z.string(), who: z.string(), from: z.string(), did: z.string(), about: z.string() }),
);
export type Audit = z.output<typeof auditSchema>;
