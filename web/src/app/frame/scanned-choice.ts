import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Scanned } from '@hot-spline/model';
import { Dialog } from 'primeng/dialog';
import { Scanner } from './scanner';

const WORDS: Readonly<Record<Scanned[number]['what'], string>> = {
  build: 'build',
  part: 'part of',
  spec: 'in the library',
};

/** What a code may be, where it may be several things. */
@Component({
  selector: 'hs-scanned',
  imports: [Dialog, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [visible]="scanner.choice() !== null"
      (visibleChange)="$event || scanner.choice.set(null)"
      [modal]="true"
      [dismissableMask]="true"
      [header]="'Which one? ' + (scanner.choice()?.code ?? '')"
      [style]="{ width: 'min(480px, 94vw)' }"
    >
      <ul>
        @for (hit of scanner.choice()?.hits ?? []; track $index) {
          <li>
            <a class="quiet" [routerLink]="scanner.addressOf(hit)" (click)="scanner.choice.set(null)"
              ><span class="soft">{{ words[hit.what] }}</span> {{ hit.name }}</a
            >
          </li>
        }
      </ul>
    </p-dialog>
  `,
  styles: `
    ul {
      display: grid;
      gap: 8px;
    }
    a {
      width: 100%;
      justify-content: start;
    }
  `,
})
export class ScannedChoice {
  protected readonly scanner = inject(Scanner);
  protected readonly words = WORDS;
}
