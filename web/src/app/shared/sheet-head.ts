import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { AxleSwitch } from './axle-switch';
import { SaveMenu } from './save-menu';

/** Title line of a sheet: name, one sentence, and the axle where there are two. */
@Component({
  selector: 'hs-sheet-head',
  imports: [AxleSwitch, SaveMenu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <div>
        <h1>{{ title() }}</h1>
        <p>{{ about() }}</p>
      </div>
      <span class="tools">
        <hs-save-menu />
        @if (perAxle()) {
          <hs-axle-switch />
        }
      </span>
    </header>
  `,
  styles: `
    @use 'breakpoints' as *;
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
    .tools {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    h1 {
      font-size: var(--text-l);
    }
    p {
      color: var(--soft);
      font-size: var(--text-s);
    }
    /* On a phone the answer comes first. */
    @media #{$narrow} {
      header {
        margin-bottom: 4px;
      }
      p {
        display: none;
      }
    }
  `,
})
export class SheetHead {
  readonly title = input.required<string>();
  readonly about = input.required<string>();
  readonly perAxle = input(false);
}
