import type { Params } from '@angular/router';
import type { Place } from '@hot-spline/model';

/** The address of a place of a build: sheet, tab, and the field that gets the focus. */
export function addressOf(id: string | null, { sheet, tab, field }: Place): { path: string[]; queryParams: Params } {
  return { path: ['/builds', id ?? '', sheet], queryParams: { tab: tab ?? null, at: field } };
}
