import { hoursAfter } from '../base/days';
import type { Work } from '../plan/schema';
import type { WorkState } from '../plan/work';
import type { RestsFor } from './board-states';

/** What a job waits for. */
export interface Rest {
  readonly for: RestsFor;
  /** In the words of whoever put it on hold, or what is not here. */
  readonly what: string;
  /**
   * A day, or a moment of what sets [ISO 8601]; null: nobody has said. Where parts or tools are missing it is the day of the
   * last step that was done: since then nothing has moved.
   */
  readonly since: string | null;
  readonly until: string | null;
}

const HOLD: Readonly<Record<NonNullable<Work['hold']>['for'], RestsFor>> = {
  parts: 'part',
  tool: 'tool',
  'machine-shop': 'machine-shop',
  customer: 'customer',
  other: 'other',
};

const latest = (days: readonly (string | null)[]): string | null => {
  const said = days.filter((day) => day !== null);
  // One that nobody has promised may be the last.
  return said.length < days.length ? null : (said.sort().at(-1) ?? null);
};

/**
 * What the work on an axle waits for; null where it can go on. A hold comes first, for somebody has said it.
 * Does not count: what sets (`settingOf`), for that ends by itself.
 */
export function restOf({ work, next, to }: WorkState): Rest | null {
  const { hold } = work;
  if (hold) return { for: HOLD[hold.for], what: hold.why, since: hold.since, until: hold.until };
  if (next === null) return null;
  const since = to?.slice(0, 10) ?? null;
  const wanting = new Set(next.waits.filter((one) => one.for === 'part').map(({ id }) => id));
  // Everything is in the house before it comes apart; later what the step itself needs.
  const away = work.parts.filter(
    ({ id, state }) => state !== 'here' && (next.step.phase === 'decide' || wanting.has(id)),
  );
  if (away.length > 0)
    return {
      for: 'part',
      what: away.map(({ name, state }) => `${name} (${state})`).join(', '),
      since,
      until: latest(away.map(({ promised }) => promised)),
    };
  const tools = next.waits.filter((one) => one.for === 'tool');
  if (tools.length === 0) return null;
  const back = tools.map(({ id }) => work.tools.find((tool) => tool.id === id)?.back ?? null);
  return { for: 'tool', what: tools.map(({ what }) => what).join(', '), since, until: latest(back) };
}

/**
 * What the step that is next has to wait for because it sets or cools, by the order of work: of all that it rests on, what is ready last,
 * since and until when [ISO 8601]. Whether it is over yet is for who knows what time it is. A step that does not rest on it can go on.
 * Does not know: how warm it is.
 */
export function settingOf({ steps, next }: WorkState): Rest | null {
  if (next === null) return null;
  const byId = new Map(steps.map((one) => [one.step.id, one]));
  const rests = new Set<string>();
  const ask = [...next.step.after];
  for (let id = ask.pop(); id !== undefined; id = ask.pop()) {
    if (rests.has(id)) continue;
    rests.add(id);
    ask.push(...(byId.get(id)?.step.after ?? []));
  }
  let last: Rest | null = null;
  for (const id of rests) {
    const { step, status, done } = byId.get(id) ?? {};
    if (!step || status !== 'done' || !done || step.waitsHours <= 0) continue;
    const until = hoursAfter(done.at, step.waitsHours);
    if (last === null || until > (last.until ?? '')) last = { for: 'curing', what: step.title, since: done.at, until };
  }
  return last;
}
