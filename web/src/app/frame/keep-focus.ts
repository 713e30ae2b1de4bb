import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';

const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea, [tabindex="0"]';

/** Whether it can be met with the keys and is drawn. */
const reachable = (element: HTMLElement): boolean => element.tabIndex >= 0 && element.offsetParent !== null;

/**
 * Keeps the focus on the sheet: where what had it goes away or can't be pressed any more – the row was taken, the plan is in – the
 * nearest thing beside it gets it, not the top of the page. Who leaves a field by themselves is left alone.
 */
@Directive({ selector: '[hsKeepFocus]' })
export class KeepFocus {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** What had the focus last, and what it stood in, from inside out. */
  private path: readonly HTMLElement[] = [];

  constructor() {
    const remember = ({ target }: FocusEvent): void => {
      const path: HTMLElement[] = [];
      for (let at = target as HTMLElement | null; at && at !== this.host; at = at.parentElement) path.push(at);
      this.path = path;
    };
    const observer = new MutationObserver(() => this.mend());
    this.host.addEventListener('focusin', remember);
    observer.observe(this.host, { childList: true, subtree: true, attributes: true, attributeFilter: ['disabled'] });
    inject(DestroyRef).onDestroy(() => {
      observer.disconnect();
      this.host.removeEventListener('focusin', remember);
    });
  }

  private mend(): void {
    const [last, ...around] = this.path;
    const now = document.activeElement;
    // What was just disabled counts as focused until the next frame.
    const nowhere = now === null || now === document.body || now === last;
    if (!last || !nowhere || (last.isConnected && !last.matches(':disabled'))) return;
    const next = around
      .filter((one) => one.isConnected)
      .flatMap((one) => [...one.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(reachable).slice(0, 1))[0];
    (next ?? this.host).focus({ preventScroll: true });
  }
}
