import { ChangeDetectionStrategy, Component, ElementRef, afterEveryRender, inject, signal } from '@angular/core';
import { anySaved, save, savedIn, type Saved } from './drawings';

/** Every drawing of the sheet as SVG, every table as CSV; nothing where there is neither. */
@Component({
  selector: 'hs-save-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.escape)': 'open.set(false)' },
  template: `
    @if (any()) {
      <button
        type="button"
        class="quiet bare"
        aria-label="Save a drawing or table of this sheet"
        [attr.aria-expanded]="open()"
        (click)="toggle()"
      >
        <i class="pi pi-download" aria-hidden="true"></i>
      </button>
    }
    @if (open()) {
      <ul aria-label="To be saved">
        @for (one of list(); track $index) {
          <li>
            <button type="button" class="quiet bare" (click)="save(one)">
              <span>{{ one.name }}</span> <span class="soft">{{ one.of === 'table' ? 'CSV' : 'SVG' }}</span>
            </button>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      position: relative;
    }
    :host > button {
      min-width: 32px;
      min-height: 32px;
      justify-content: center;
    }
    ul {
      position: absolute;
      top: 100%;
      right: 0;
      z-index: 6;
      width: max-content;
      max-width: min(340px, 88vw);
      max-height: 60vh;
      overflow: auto;
      margin: 0;
      padding: 4px;
      list-style: none;
      background: var(--sheet);
      border: 1px solid var(--field);
      border-radius: 6px;
    }
    li button {
      display: flex;
      justify-content: space-between;
      gap: 16px;
      width: 100%;
      text-align: left;
    }
    @media #{$narrow} {
      :host > button,
      li button {
        min-width: 44px;
        min-height: 44px;
      }
    }
  `,
})
export class SaveMenu {
  private readonly host: HTMLElement = inject(ElementRef).nativeElement;
  protected readonly any = signal(false);
  protected readonly open = signal(false);
  protected readonly list = signal<readonly Saved[]>([]);

  constructor() {
    // What a sheet draws comes late and goes again with its tabs.
    afterEveryRender({
      earlyRead: () => {
        const sheet = this.sheet();
        return sheet !== null && anySaved(sheet);
      },
      write: (found) => {
        if (found !== this.any()) this.any.set(found);
      },
    });
  }

  private sheet(): Element | null {
    return this.host.closest('hs-sheet-head')?.parentElement ?? null;
  }

  protected toggle(): void {
    const sheet = this.sheet();
    this.list.set(sheet ? savedIn(sheet) : []);
    this.open.update((open) => !open);
  }

  protected save(one: Saved): Promise<void> {
    this.open.set(false);
    return save(one);
  }
}
