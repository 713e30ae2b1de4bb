import { DOCUMENT, Injectable, inject } from '@angular/core';

const FIELDS =
  'input:not([type="hidden"]):not([disabled]), select:not([disabled]), textarea, button:not([disabled]), a[href]';
/** Long enough for what was clicked to have gone, too short to be noticed. */
const AFTER_MS = 80;
/** What is worked out first goes later: so long it is looked after. */
const LOOKS = 30;

/**
 * Where what had the focus is removed or can't be pressed any more – a row deleted, a reading voided, a plan put in – the focus goes to what is next in the
 * same place, not to the top of the page.
 */
@Injectable({ providedIn: 'root' })
export class FocusKeeper {
  private readonly document = inject(DOCUMENT);
  /** What had the focus last, and all that it stood in. */
  private last: { readonly element: HTMLElement; readonly around: readonly HTMLElement[]; readonly at: number } | null =
    null;

  private looking: ReturnType<typeof setTimeout> | undefined;

  begin(): void {
    this.document.addEventListener('focusin', ({ target }) => {
      if (target instanceof HTMLElement && target !== this.document.body) this.last = this.placeOf(target);
    });
    for (const done of ['click', 'keyup'] as const)
      this.document.addEventListener(done, () => this.look(LOOKS), { capture: true });
  }

  private placeOf(element: HTMLElement): NonNullable<FocusKeeper['last']> {
    const around: HTMLElement[] = [];
    for (let up = element.parentElement; up && up !== this.document.body; up = up.parentElement) around.push(up);
    const near = around.find((one) => one.querySelectorAll(FIELDS).length > 1);
    return { element, around, at: near ? [...near.querySelectorAll(FIELDS)].indexOf(element) : 0 };
  }

  /**
   * What was pressed may go at once, or be disabled after what it does is worked out: that alone is looked after longer. Where it is gone
   * later, the page is another one, and has a beginning of its own.
   */
  private look(left: number): void {
    clearTimeout(this.looking);
    this.looking = setTimeout(() => {
      const { last } = this;
      const disabled = last?.element.isConnected === true && last.element.matches(':disabled');
      if (left === LOOKS || disabled) this.mend();
      if (left > 1 && last?.element.isConnected === true && this.last === last) this.look(left - 1);
    }, AFTER_MS);
  }

  private mend(): void {
    const { last } = this;
    const there = last?.element.isConnected && !last.element.matches(':disabled');
    if (!last || there || this.document.activeElement !== this.document.body) return;
    this.last = null;
    const near = last.around.find((one) => one.isConnected && one.querySelector(FIELDS) !== null);
    // Where the page itself is another one, its sheet begins; what stands next in the frame is nobody's place.
    const place = near?.querySelector('#sheet') ? null : near;
    const fields = place ? [...place.querySelectorAll<HTMLElement>(FIELDS)] : [];
    (fields[Math.min(Math.max(last.at, 0), fields.length - 1)] ?? this.document.getElementById('sheet'))?.focus({
      preventScroll: true,
    });
  }
}
