import { InputError } from '@hot-spline/core/page';
import type * as z from 'zod';

type Issue = z.core.$ZodIssue;

/** `['members', 3, 'thickness']` as `members[3].thickness`. */
export function fieldPath(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text === '' ? String(key) : `${text}.${String(key)}`),
    '',
  );
}

function inWords(issue: Issue): { message: string; allowed: string } {
  switch (issue.code) {
    case 'invalid_type': {
      const missing = issue.input === undefined;
      return {
        message: missing ? 'is missing' : `must be ${article(issue.expected)}`,
        allowed: article(issue.expected),
      };
    }
    case 'too_small': {
      const bound = `${issue.inclusive === false ? 'more than' : 'at least'} ${issue.minimum}`;
      return { message: `must be ${bound}${sizeOf(issue.origin)}`, allowed: bound };
    }
    case 'too_big': {
      const bound = `${issue.inclusive === false ? 'below' : 'at most'} ${issue.maximum}`;
      return { message: `must be ${bound}${sizeOf(issue.origin)}`, allowed: bound };
    }
    case 'invalid_value': {
      const values = issue.values.map(String).join(', ');
      return { message: issue.input === undefined ? 'is missing' : `must be one of ${values}`, allowed: values };
    }
    case 'invalid_union':
      return { message: 'is none of the known kinds', allowed: 'one of the known kinds' };
    case 'invalid_format':
      return {
        message: issue.message.startsWith('must') ? issue.message : `is not a valid ${issue.format}`,
        allowed: issue.format,
      };
    default:
      return { message: issue.message, allowed: issue.message };
  }
}

function article(type: string): string {
  const word = type === 'int' ? 'whole number' : type;
  return `${/^[aeio]/.test(word) ? 'an' : 'a'} ${word}`;
}
const sizeOf = (origin: string): string => (origin === 'string' ? ' characters' : origin === 'array' ? ' long' : '');

/** Of the kinds of a union, the complaint of the one that was understood furthest. */
function innermost(issue: Issue): Issue {
  if (issue.code !== 'invalid_union') return issue;
  const deepest = issue.errors
    .map((issues) => issues[0])
    .filter((one) => one !== undefined && one.path.length > 0)
    .sort((a, b) => (b?.path.length ?? 0) - (a?.path.length ?? 0))[0];
  return deepest ? innermost({ ...deepest, path: [...issue.path, ...deepest.path] }) : issue;
}

/** The first issue of a failed parse as an {@link InputError} that names the field in a sentence. */
export function refusal(error: z.ZodError, root: string): InputError {
  const issue = error.issues[0] && innermost(error.issues[0]);
  if (!issue) return new InputError(root, `${root} can’t be read.`, 'see the schema');
  if (issue.code === 'unrecognized_keys') {
    const field = fieldPath([...issue.path, issue.keys[0] ?? '']);
    return new InputError(field, `${field} is not a known key.`, 'only the keys of the schema');
  }
  const field = fieldPath(issue.path) || root;
  const { message, allowed } = inWords(issue);
  const separator = /^(must|is|does|was|may)\b/.test(message) ? ' ' : ': ';
  return new InputError(
    field,
    message.startsWith(field) ? message : `${field}${separator}${message}${message.endsWith('.') ? '' : '.'}`,
    allowed,
  );
}

/** A lone half of a character, or NUL: text that a database or another program can't keep. */
const UNKEEPABLE = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** Deeper than this nothing of ours goes. */
const DEEPEST = 60;

/**
 * Looks at every text in something from outside, keys included.
 * @throws InputError naming the field where a text holds NUL or half a character
 */
export function requireKeepable(input: unknown, root: string, path: readonly PropertyKey[] = []): void {
  if (typeof input === 'string') {
    if (!UNKEEPABLE.test(input)) return;
    const field = fieldPath(path) || root;
    const what = input.includes('\0') ? 'a NUL character' : 'half of a character';
    throw new InputError(field, `${field} holds ${what}, which can’t be kept.`, 'whole characters, no NUL');
  }
  if (typeof input !== 'object' || input === null) return;
  if (path.length > DEEPEST) throw new InputError(root, `${root} is nested too deeply.`, `at most ${DEEPEST} levels`);
  if (Array.isArray(input)) {
    input.forEach((value: unknown, i) => requireKeepable(value, root, [...path, i]));
    return;
  }
  for (const [key, value] of Object.entries(input)) {
    if (UNKEEPABLE.test(key)) requireKeepable(key, root, [...path, 'key']);
    requireKeepable(value, root, [...path, key]);
  }
}

/**
 * Parses something from outside.
 * @throws InputError naming the first field that is wrong
 */
export function parseOrRefuse<S extends z.ZodType>(schema: S, input: unknown, root: string): z.output<S> {
  requireKeepable(input, root);
  const parsed = schema.safeParse(input, { reportInput: true });
  if (!parsed.success) throw refusal(parsed.error, root);
  return parsed.data;
}
