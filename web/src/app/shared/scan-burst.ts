import { typing } from './typing';

/** A scanner that is a keyboard sends its keys faster than anybody types, ms; ours, above what slow ones take and below quick typing. */
export const GAP_MS = 40;
/** Fewer letters than this in one go are somebody’s keys: ours. */
export const LEAST = 5;

/** Address of a label of ours, wherever it was printed: it may be taken out of a field that it was scanned into. */
const OURS =
  /^https?:\/\/\S+\/(?:builds\/|library\?spec=)[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/i;

type Field = HTMLInputElement | HTMLTextAreaElement;
const isField = (target: EventTarget | null): target is Field =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

const isLetter = ({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean =>
  key.length === 1 && !ctrlKey && !metaKey && !altKey;

/** A key that was held back, as if it came now. */
const again = ({ key, code, shiftKey, location, repeat }: KeyboardEvent): KeyboardEvent =>
  new KeyboardEvent('keydown', {
    key,
    code,
    shiftKey,
    location,
    repeat,
    bubbles: true,
    cancelable: true,
    composed: true,
  });

/**
 * Tells a scanner that is a keyboard from somebody’s keys: letters in one go, ended by Enter or Tab. Outside of fields a letter is
 * held back for as long as it may be the first of a scan, so that none of a code fires a command; what was no scan comes a moment later,
 * in its order. In a field letters come as they are, and a label of ours is taken out of it again.
 */
export class ScanBurst {
  private held: { readonly event: KeyboardEvent; readonly target: EventTarget }[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** What comes into a field, and what stood there before. */
  private into: { readonly field: Field; readonly before: string; text: string } | null = null;
  private last = Number.NEGATIVE_INFINITY;
  /** What is sent once more is not looked at again. */
  private releasing = false;

  constructor(private readonly scanned: (code: string) => void) {}

  /** A key comes down, before anybody else hears it. */
  down(event: KeyboardEvent): void {
    // A key that is held down repeats itself: no scanner's.
    if (this.releasing || event.isComposing || event.repeat) return;
    // A modifier alone is part of a capital letter.
    if (['Shift', 'AltGraph', 'CapsLock'].includes(event.key)) return;
    const quick = event.timeStamp - this.last < GAP_MS;
    this.last = event.timeStamp;
    const ends = event.key === 'Enter' || event.key === 'Tab';
    if (typing(event.target)) this.inField(event, quick, ends);
    else this.outside(event, quick, ends);
  }

  private outside(event: KeyboardEvent, quick: boolean, ends: boolean): void {
    if (ends && quick && this.held.length >= LEAST) {
      const code = this.held.map((one) => one.event.key).join('');
      this.forget();
      stop(event);
      this.scanned(code);
      return;
    }
    // Space presses a button: it is no first letter of a code.
    if (!isLetter(event) || (event.key === ' ' && this.held.length === 0)) return this.release();
    if (!quick) this.release();
    if (!event.target) return;
    stop(event);
    this.held.push({ event, target: event.target });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.release(), GAP_MS);
  }

  private inField(event: KeyboardEvent, quick: boolean, ends: boolean): void {
    this.release();
    const field = isField(event.target) ? event.target : null;
    if (field && isLetter(event)) {
      if (!quick || this.into?.field !== field) this.into = { field, before: field.value, text: '' };
      this.into.text += event.key;
      return;
    }
    const scanned = ends && quick ? this.into : null;
    this.into = null;
    if (!scanned || scanned.field !== field || !OURS.test(scanned.text)) return;
    stop(event);
    // As if nobody had typed: whoever listens to the field hears what stands in it.
    scanned.field.value = scanned.before;
    scanned.field.dispatchEvent(new Event('input', { bubbles: true }));
    this.scanned(scanned.text);
  }

  private forget(): void {
    clearTimeout(this.timer);
    this.held = [];
  }

  /** It was no scan: what was held back comes now. */
  private release(): void {
    const { held } = this;
    this.forget();
    this.releasing = true;
    try {
      for (const { event, target } of held) target.dispatchEvent(again(event));
    } finally {
      this.releasing = false;
    }
  }
}

function stop(event: KeyboardEvent): void {
  event.preventDefault();
  event.stopImmediatePropagation();
}
