import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { AxleSwitch } from './axle-switch';

/** Title line of a sheet: name, one sentence, and the axle where there are two. */
@Component({
  selector: 'hs-sheet-head',
  imports: [AxleSwitch],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <div>
        <h1>{{ title() }}</h1>
        <p>{{ about() }}</p>
      </div>
      @if (perAxle()) {
        <hs-axle-switch />
      }
    </header>
  `,
  styles: `
    header {
      display: flex;
      justify-content: space-between;
      align-items: flex-start;
      gap: 12px;
      margin-bottom: 8px;
    }
    div {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 0 12px;
    }
    h1 {
      font-size: var(--text-l);
    }
    p {
      color: var(--soft);
      font-size: var(--text-s);
    }
  `,
})
export class SheetHead {
  readonly title = input.required<string>();
  readonly about = input.required<string>();
  readonly perAxle = input(false);
}
