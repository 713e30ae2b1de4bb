import { roadSearch, type FoundSet, type SearchProblem, type SearchResult } from '@hot-spline/core';
import { defineHeavy } from '../frame/heavy';

/** What is known while a search runs; enough to show if it is stopped. */
export interface SearchNews {
  readonly bestS: number | null;
  readonly boundS: number;
  readonly best: FoundSet | null;
}

/** Gear sets off a shelf for a course; ends with its bound where it may not go on. */
export const heavySearch = defineHeavy<'road.search', SearchProblem, SearchResult, SearchNews>({
  name: 'road.search',
  run: (problem, { tell, goOn }) =>
    roadSearch(problem, ({ share, bestS, boundS, best }) => {
      tell(share, { bestS, boundS, best });
      return goOn();
    }),
});
