import type { FoundSet } from '@hot-spline/core';
import type { HeavyOutcome } from '../shared/heavy';

export interface SearchOutcome {
  readonly best: readonly FoundSet[];
  readonly provenBest: boolean;
  readonly boundS: number;
  readonly combinations: number | null;
  readonly evaluated: number | null;
  readonly seconds: number;
  /** Stopped by hand: what had been found by then. */
  readonly stopped: boolean;
}

/** What came of a search, whether it ran to its end or was stopped. */
export function searchOutcome({ result, news, seconds }: HeavyOutcome<'road.search'>): SearchOutcome {
  if (result) {
    const { best, provenBest, boundS, combinations, evaluated } = result;
    return { best, provenBest, boundS, combinations, evaluated, seconds, stopped: false };
  }
  const best = news?.best ? [news.best] : [];
  return {
    best,
    provenBest: false,
    boundS: news?.boundS ?? 0,
    combinations: null,
    evaluated: null,
    seconds,
    stopped: true,
  };
}
