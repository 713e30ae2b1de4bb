import { Injectable, signal } from '@angular/core';
import type { Finding } from '@hot-spline/model';

/** What is worked on now, and which findings are about it; null: all of them are shown. */
export interface Focus {
  readonly of: string;
  readonly concerns: (finding: Finding) => boolean;
}

/** What the findings beside a sheet are narrowed to: said by the sheet, read by the frame. */
@Injectable({ providedIn: 'root' })
export class FindingsFocus {
  readonly now = signal<Focus | null>(null);
}
