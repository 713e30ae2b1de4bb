import { typing } from '../shared/typing';

/** A field of ours in which nothing stands that is not taken: undo there is the app's, for the browser has nothing to take back. */
const settled = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement && target.dataset['unsaved'] === 'no';

export type KeyCommand =
  | { readonly kind: 'go'; readonly key: string }
  | { readonly kind: 'find' | 'measure' | 'units' | 'keys' | 'undo' | 'redo' };

/** Turns key presses into commands: `g` then two letters, single keys, and undo and redo. */
export class KeyReader {
  /** What was typed of a place since `g`; null: no place is being typed. */
  private place: string | null = null;

  read(
    event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey' | 'target'>,
  ): KeyCommand | null {
    const key = event.key.toLowerCase();
    const steps = (event.ctrlKey || event.metaKey) && (key === 'z' || key === 'y');
    if (typing(event.target) && !(steps && settled(event.target))) return null;
    if ((event.ctrlKey || event.metaKey) && !event.altKey) {
      if (key === 'z') return { kind: event.shiftKey ? 'redo' : 'undo' };
      return key === 'y' ? { kind: 'redo' } : null;
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return null;
    if (this.place !== null) {
      // Whatever is no letter gives the place up.
      const typed = this.place + key;
      const letters = /^[a-z]$/.test(key);
      this.place = letters && typed.length < 2 ? typed : null;
      return letters && typed.length === 2 ? { kind: 'go', key: typed } : null;
    }
    switch (key) {
      case 'g':
        this.place = '';
        return null;
      case '/':
        return { kind: 'find' };
      case 'm':
        return { kind: 'measure' };
      case 'u':
        return { kind: 'units' };
      case '?':
        return { kind: 'keys' };
      default:
        return null;
    }
  }
}
