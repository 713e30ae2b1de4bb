import { GAP_MS, LEAST, ScanBurst } from './scan-burst';

const LABEL = 'http://shop:8010/builds/a0000000-0000-4000-8000-000000000001#Siskin';

describe('a scanner that is a keyboard', () => {
  let scans: string[];
  let heard: string[];
  let burst: ScanBurst;
  let clock: number;
  let field: HTMLInputElement;
  const look = (event: KeyboardEvent): void => burst.down(event);
  const hear = (event: KeyboardEvent): void => void heard.push(event.key);

  beforeEach(() => {
    [scans, heard, clock] = [[], [], 1000];
    burst = new ScanBurst((code) => scans.push(code));
    document.addEventListener('keydown', look, { capture: true });
    document.addEventListener('keydown', hear);
    field = document.createElement('input');
    document.body.append(field);
    jasmine.clock().install();
  });
  afterEach(() => {
    jasmine.clock().uninstall();
    document.removeEventListener('keydown', look, { capture: true });
    document.removeEventListener('keydown', hear);
    field.remove();
  });

  /** A key so long after the one before; what it would do by itself is done here. */
  function press(key: string, afterMs: number, target: HTMLElement = document.body): boolean {
    clock += afterMs;
    jasmine.clock().tick(afterMs);
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    Object.defineProperty(event, 'timeStamp', { value: clock });
    const done = target.dispatchEvent(event);
    if (done && target === field && key.length === 1) field.value += key;
    return done;
  }
  const type = (text: string, gapMs: number, target?: HTMLElement): void => {
    for (const key of text) press(key, gapMs, target);
  };

  it('is told by its speed and its Enter; none of its letters fires anything', () => {
    press('x', 500);
    jasmine.clock().tick(GAP_MS);
    type('40-uUm/27', 8);
    expect(press('Enter', 8)).toBeFalse();
    expect(scans).toEqual(['40-uUm/27']);
    jasmine.clock().tick(1000);
    // What was pressed before it was somebody’s.
    expect(heard).toEqual(['x']);
    type('ABCDEF', 5);
    press('Shift', 2);
    type('g', 2);
    press('Tab', 5);
    expect(scans[1]).toBe('ABCDEFg');
  });

  it('somebody’s keys come, a moment later and in their order; what is no letter comes at once, behind them', () => {
    press('g', 200);
    expect(heard).toEqual([]);
    press('m', 120);
    expect(heard).toEqual(['g']);
    press('Escape', 5);
    expect(heard).toEqual(['g', 'm', 'Escape']);
    // As quick as a machine, and no Enter, or too short.
    type('ab', 1);
    expect(press('Enter', 1)).toBeTrue();
    expect(heard.slice(3)).toEqual(['a', 'b', 'Enter']);
    type('x'.repeat(LEAST + 2), 1);
    jasmine.clock().tick(GAP_MS);
    expect(heard.length).toBe(6 + LEAST + 2);
    // Space on a button presses it.
    expect(press(' ', 100)).toBeTrue();
    expect(scans).toEqual([]);
  });

  it('slow letters and an Enter are typed, however many', () => {
    type('seventeen letters', GAP_MS + 1);
    press('Enter', GAP_MS + 1);
    expect(scans).toEqual([]);
    expect(heard.join('')).toBe('seventeen lettersEnter');
  });

  it('in a field a number stays, as if it had been typed; a label of ours is taken out of it, and opens', () => {
    field.value = 'W-';
    let said = '';
    field.addEventListener('input', () => (said = field.value));
    type('40-1127', 5, field);
    expect(press('Enter', 5, field)).toBeTrue();
    expect([field.value, scans]).toEqual(['W-40-1127', []]);
    press('x', 300, field);
    field.value = 'W-40-1127';
    clock += 300;
    type(LABEL, 5, field);
    expect(press('Enter', 5, field)).toBeFalse();
    expect(scans).toEqual([LABEL]);
    expect([field.value, said]).toEqual(['W-40-1127', 'W-40-1127']);
    // Typed by hand it is an address that somebody writes down.
    type(LABEL, GAP_MS + 10, field);
    expect(press('Enter', GAP_MS + 10, field)).toBeTrue();
    expect(scans.length).toBe(1);
  });
});
