import { RESTS_FOR_WORDS, type BoardRow, type Rest } from '@hot-spline/model';
import { sayDay, sayMoment } from '../base/day';

/** A day, or the moment of what sets. */
const say = (at: string): string => (at.length > 10 ? sayMoment(at) : sayDay(at));

/** What a job waits for, since when and until when, where somebody has said it. */
export function restWords({ for: of, what, since, until }: Rest): string {
  const when = [since && `since ${say(since)}`, until ? `until ${say(until)}` : ''].filter(Boolean).join(', ');
  return [`for ${RESTS_FOR_WORDS[of]}${when && `, ${when}`}`, what].filter(Boolean).join(': ');
}

/** What goes with its state, in a line: what it waits for, which round, which gate, why it is due, else the step that is next. */
export function stateWords({ work, worker }: BoardRow): string {
  if (work.state === 'due') return `by ${work.due}`;
  if (work.rest && work.state === 'waiting') return restWords(work.rest);
  if (work.state === 'gate') return `Gate ${work.gate}`;
  const next = [work.state === 'loop' ? `round ${work.round}` : '', work.next].filter(Boolean).join(' · ');
  return work.state === 'work' && worker !== '' ? `${worker}: ${next}` : next;
}
