import type { FoundSet, PackSure, SearchProblem, SearchResult, SurePack } from '@hot-spline/core';
import type { TraceColumns, TraceImport } from '@hot-spline/model';

/** What the page is told while a search runs; enough to show if it is stopped. */
export interface SearchNews {
  readonly share: number;
  readonly bestS: number | null;
  readonly boundS: number;
}

export type SearchAnswer =
  | { readonly kind: 'done'; readonly result: SearchResult; readonly seconds: number }
  | { readonly kind: 'refused'; readonly field: string; readonly message: string; readonly allowed: string };

export type TraceChoice = Partial<Pick<TraceColumns, 'along' | 'speedUnit' | 'timeUnit' | 'distanceUnit'>>;

export type TraceAnswer =
  | { readonly kind: 'done'; readonly trace: Omit<TraceImport, 'samples'> }
  | { readonly kind: 'refused'; readonly message: string };

export type SureAnswer =
  | { readonly kind: 'done'; readonly packs: readonly PackSure[]; readonly seconds: number }
  | { readonly kind: 'refused'; readonly message: string };

/** The worker's side, as comlink carries it. `limitS` ends a search with its bound. */
export interface HeavyWork {
  search(
    problem: SearchProblem,
    limitS: number,
    tell: (news: SearchNews, best: FoundSet | null) => void,
  ): Promise<SearchAnswer>;
  trace(file: Blob, choice: TraceChoice, tell: (share: number) => void): Promise<TraceAnswer>;
  /** Draws each pack so many times; the same seed gives the same answer. */
  uncertainty(
    packs: readonly SurePack[],
    samples: number,
    seed: number,
    tell: (share: number) => void,
  ): Promise<SureAnswer>;
}
