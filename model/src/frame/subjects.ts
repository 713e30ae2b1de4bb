import type { Build } from './document';
import '../base/zod';
import * as z from 'zod';
import { valueSchema, type ReadingValue, type ValueKind } from './values';

type Shape = Readonly<Record<string, z.ZodType<string>>>;
type Keys<K extends Shape> = { [N in keyof K]: z.output<K[N]> };

/** The subject of a reading, as it is kept: what was read, and of which piece. */
export type SubjectOf = Readonly<Record<string, unknown>> & { readonly what: string };

/** One kind of thing that can be read: at home in its capability. */
export interface Subject {
  readonly what: string;
  /** Keys that tell one thing from another, in the order in which they make its key. */
  readonly keys: readonly string[];
  readonly value: ValueKind;
  readonly schema: z.ZodType<SubjectOf>;
  readonly valueSchema: z.ZodType<ReadingValue>;
  /** State that a reading was taken in; nothing unless the subject asks for it. */
  readonly stateSchema: z.ZodType<Readonly<Record<string, string>>>;
  /** What was measured, in the words of the bench. */
  words(subject: SubjectOf, build: Build): string;
}

/** What a subject carries beside its keys. */
type About<A extends z.ZodRawShape> = keyof A extends never ? unknown : z.output<z.ZodObject<A>>;

/** A subject whose keys are known to the compiler. */
export interface TypedSubject<K extends Shape, A, V extends ValueKind = ValueKind> extends Subject {
  readonly value: V;
  /** One key per thing that can be read. */
  key(keys: Keys<K>): string;
  of(keys: Keys<K> & A): SubjectOf;
  /** What the keys and additions of a subject of this kind are; null for one of another kind. */
  read(subject: SubjectOf): (Keys<K> & A) | null;
}

const NO_STATE = z.strictObject({});

/**
 * Defines what can be read.
 * @param about what a subject carries beside its keys, e.g. the pieces that were in a stack
 */
export function defineSubject<
  K extends Shape,
  const V extends ValueKind,
  A extends z.ZodRawShape = Record<never, never>,
>({
  what,
  keys,
  about,
  value,
  state,
  words,
}: {
  readonly what: string;
  readonly keys: K;
  readonly about?: A;
  readonly value: V;
  readonly state?: z.ZodType<Readonly<Record<string, string>>>;
  readonly words: (subject: Keys<K>, build: Build) => string;
}): TypedSubject<K, About<A>, V> {
  const schema = z.strictObject({ what: z.literal(what), ...keys, ...about });
  const names = Object.keys(keys);
  return {
    what,
    keys: names,
    value,
    schema: schema as unknown as z.ZodType<SubjectOf>,
    valueSchema: valueSchema(value),
    stateSchema: state ?? NO_STATE,
    words: (subject, build) => words(subject as unknown as Keys<K>, build),
    key: (of) => keyOf(what, names, of),
    of: (of) => ({ what, ...(of as object) }),
    read: (subject) => (subject.what === what ? (subject as unknown as Keys<K> & About<A>) : null),
  };
}

function keyOf(what: string, keys: readonly string[], of: object): string {
  let made = what;
  for (const key of keys) made += `/${String((of as Record<string, unknown>)[key])}`;
  return made;
}

/** A list of kinds by name, and the keys that were made of subjects of it: a ledger asks for all of its own at every entry. */
interface Known {
  readonly kinds: ReadonlyMap<string, Subject>;
  readonly keys: WeakMap<SubjectOf, string>;
}
const known = new WeakMap<readonly Subject[], Known>();

function knownOf(kinds: readonly Subject[]): Known {
  const there = known.get(kinds);
  if (there) return there;
  const made: Known = { kinds: new Map(kinds.map((kind) => [kind.what, kind])), keys: new WeakMap() };
  known.set(kinds, made);
  return made;
}

/** The key of a subject that was checked before, by the list of all kinds. */
export function subjectKey(subject: SubjectOf, kinds: readonly Subject[]): string {
  const { kinds: named, keys } = knownOf(kinds);
  const there = keys.get(subject);
  if (there !== undefined) return there;
  const kind = named.get(subject.what);
  if (!kind) throw new Error(`nothing of the kind ${subject.what} can be read`);
  const key = keyOf(kind.what, kind.keys, subject);
  keys.set(subject, key);
  return key;
}
