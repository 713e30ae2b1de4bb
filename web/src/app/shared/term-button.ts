import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Popover } from 'primeng/popover';
import { TERMS, type Term, type TermName } from './terms';

/** Says at the place what a word means; a length is drawn. */
@Component({
  selector: 'hs-term',
  imports: [Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      tabindex="-1"
      [attr.aria-label]="'What is meant by ' + term().title"
      (click)="panel.toggle($event)"
    >
      ?
    </button>
    <p-popover #panel [ariaLabel]="term().title" appendTo="body">
      <div class="term">
        <p>
          <strong>{{ term().title }}.</strong> {{ term().text }}
        </p>
        @switch (term().drawing) {
          @case ('case-depth') {
            <svg viewBox="0 0 240 92" role="img" aria-label="Case depth, from the case wall to the side gear">
              <path class="wall" d="M10 10h14v62H10z" />
              <path class="soft" d="M30 22l10 20-10 20M40 42h0" />
              @for (x of [52, 68, 84, 100, 116, 132]; track x; let odd = $odd) {
                <path [class.steel]="!odd" [class.friction]="odd" [attr.d]="'M' + x + ' 16h10v52h-10z'" />
              }
              <path class="gear" d="M150 20h52v44h-52z" />
              <text x="176" y="46">side gear</text>
              <path class="measure" d="M24 80h126M24 74v12M150 74v12M30 77l-6 3 6 3M144 77l6 3-6 3" />
            </svg>
          }
          @case ('stack') {
            <svg viewBox="0 0 240 92" role="img" aria-label="Stack height, over all plates and shims">
              <path class="soft" d="M30 22l10 20-10 20" />
              @for (x of [52, 68, 84, 100, 116, 132]; track x; let odd = $odd) {
                <path [class.steel]="!odd" [class.friction]="odd" [attr.d]="'M' + x + ' 16h16v52h-16z'" />
              }
              <path class="measure" d="M52 80h96M52 74v12M148 74v12M58 77l-6 3 6 3M142 77l6 3-6 3" />
            </svg>
          }
          @case ('finish') {
            <svg viewBox="0 0 240 56" role="img" aria-label="From the start line to the finish">
              <path class="soft" d="M10 34h220" />
              <path class="measure" d="M24 44h186M24 14v36M210 14v36M30 41l-6 3 6 3M204 41l6 3-6 3" />
              <path class="steel" d="M26 32l4-8h14l6-6h14l8 8h8v8z" />
              <text x="210" y="10">finish</text>
            </svg>
          }
        }
      </div>
    </p-popover>
  `,
  styles: `
    :host {
      display: inline-block;
    }
    button {
      position: relative;
      width: 20px;
      height: 20px;
      margin-left: 3px;
      padding: 0;
      font-size: 12px;
      line-height: 18px;
      color: var(--blue);
      background: none;
      border: 1px solid var(--field);
      border-radius: 50%;
      cursor: pointer;
    }
    /* The thumb gets more than the eye. */
    button::after {
      content: '';
      position: absolute;
      inset: -8px;
    }
    .term {
      max-width: min(300px, 80vw);
      font-size: var(--text-s);
    }
    svg {
      display: block;
      width: 240px;
      max-width: 100%;
      margin-top: 8px;
      fill: none;
      stroke: var(--ink);
    }
    .wall {
      fill: var(--rule);
    }
    .steel {
      fill: var(--rule);
    }
    .friction {
      fill: var(--blue-wash);
      stroke: var(--blue);
    }
    .gear {
      fill: var(--paper, none);
    }
    .soft {
      stroke: var(--soft);
    }
    .measure {
      stroke: var(--ochre);
      stroke-width: 1.5;
    }
    text {
      fill: var(--ink);
      stroke: none;
      font-size: 10px;
      text-anchor: middle;
    }
  `,
})
export class TermButton {
  readonly word = input.required<TermName>();
  protected readonly term = computed<Term>(() => TERMS[this.word()]);
}
