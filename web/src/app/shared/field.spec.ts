import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LIMITS, type Entry } from '@hot-spline/core';
import { provideState, provideStore, Store } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { boardFeature } from '../state/board';
import { editorActions, editorFeature } from '../state/editor';
import { Puts } from '../state/puts';
import { uiActions, uiFeature } from '../state/ui';
import { EntryField, type TakenEntry } from './entry-field';

@Component({
  imports: [EntryField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<hs-entry
    name="t"
    label="Thickness"
    quantity="length"
    [range]="range"
    [usual]="[0.5, 6]"
    [entry]="entry()"
    [wanted]="2"
    [enterOnly]="enterOnly()"
    (taken)="took($event)"
  />`,
})
class Host {
  readonly range = LIMITS.thicknessMm;
  readonly entry = signal<Entry | null>({ typed: '0.0785', value: 0.0785, unit: 'in' });
  readonly enterOnly = signal(false);
  taken: TakenEntry[] = [];
  took(entry: TakenEntry): void {
    this.taken.push(entry);
    this.put();
  }
  put: () => unknown = () => undefined;
}

describe('the measuring field', () => {
  let fixture: ComponentFixture<Host>;
  const box = (): HTMLInputElement => fixture.nativeElement.querySelector('input');
  const said = (): string =>
    fixture.nativeElement
      .querySelector('.said')
      .textContent.replace(/\u00a0/g, ' ')
      .trim();

  async function type(text: string): Promise<void> {
    box().value = text;
    box().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }
  async function key(name: string): Promise<void> {
    box().dispatchEvent(new KeyboardEvent('keydown', { key: name }));
    await fixture.whenStable();
  }

  beforeEach(async () => {
    sessionStorage.clear();
    TestBed.configureTestingModule({
      imports: [Host],
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(editorFeature),
        provideState(uiFeature),
        provideState(boardFeature),
        MessageService,
      ],
    });
    TestBed.inject(Store).dispatch(uiActions.systemChosen({ system: 'inch' }));
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
  });

  it('shows at once what it understood in both systems and how far off it is', async () => {
    await type('78.5 thou');
    // 78.5 thou = 0.0785 in = 1.9939 mm; 2 − 1.9939 = 0.0061 mm = 0.2 thou under [exact]
    expect(said()).toBe('0.0785 in = 1.994 mm, 0.2 thou under');
    expect(fixture.componentInstance.taken).toEqual([]);
  });

  const buttons = (): HTMLButtonElement[] => [...fixture.nativeElement.querySelectorAll('.ask button')];

  it('what somebody else made of it meanwhile is said with both values; neither is written over the other unasked', async () => {
    const host = fixture.componentInstance;
    TestBed.inject(Store).dispatch(editorActions.opened({ id: '30000000-0000-4000-8000-000000000001' }));
    await fixture.whenStable();
    const theirs = (typed: string, value: number) => host.entry.set({ typed, value, unit: 'in' });
    await type('0.08');
    theirs('0.081', 0.081);
    await fixture.whenStable();
    expect(fixture.nativeElement.textContent).toContain('Meanwhile it became');
    await key('Enter');
    expect(host.taken).toEqual([]);
    expect(box().value).toBe('0.08');
    expect(buttons().length).toBe(2);
    buttons()[0]?.click();
    await fixture.whenStable();
    expect(host.taken.map(({ entry }) => entry.typed)).toEqual(['0.08']);
    await type('0.083');
    theirs('0.082', 0.082);
    await fixture.whenStable();
    buttons()[1]?.click();
    await fixture.whenStable();
    expect(host.taken.length).toBe(1);
    expect(box().value).toContain('0.082');
    // Other units say the same in other words: nothing was changed.
    await type('0.084');
    TestBed.inject(Store).dispatch(uiActions.systemChosen({ system: 'metric' }));
    await fixture.whenStable();
    expect(fixture.nativeElement.textContent).not.toContain('Meanwhile');
    // The same as is typed here is no other value.
    await type(box().value);
    expect(buttons()).toEqual([]);
  });

  it('takes the entry on Enter, as typed', async () => {
    await type('0.08');
    await key('Enter');
    const entry = { typed: '0.08', value: 0.08, unit: 'in' as const };
    expect(fixture.componentInstance.taken).toEqual([{ entry, base: 0.08 * 25.4 }]);
  });

  it('never guesses a unit: asks with the likely readings, writes nothing until one is pressed, keeps the cursor', async () => {
    await type('2.0');
    await key('Enter');
    expect(said()).toContain('Far from what this usually is');
    expect(buttons().map((button) => button.textContent?.trim())).toEqual([
      '2 mm',
      '0.2 in',
      '0.02 in',
      'really 2.0 in',
      'No',
    ]);
    await key('Enter');
    expect(fixture.componentInstance.taken).toEqual([]);
    expect(document.activeElement).toBe(buttons()[0] ?? null);
    buttons()[0]?.click();
    await fixture.whenStable();
    expect(fixture.componentInstance.taken).toEqual([{ entry: { typed: '2 mm', value: 2, unit: 'mm' }, base: 2 }]);
    expect(document.activeElement).toBe(box());
  });

  it('what is meant as typed is taken by saying so; what can’t be is not offered', async () => {
    await type('2.0');
    await key('Enter');
    buttons()
      .find((button) => button.textContent?.includes('really'))
      ?.click();
    await fixture.whenStable();
    expect(fixture.componentInstance.taken[0]?.entry.unit).toBe('in');
    await type('78.5');
    await key('Enter');
    expect(buttons().some((button) => button.textContent?.includes('really'))).toBeFalse();
    expect(buttons().some((button) => button.textContent?.trim() === '78.5 thou')).toBeTrue();
  });

  it('keeps what can’t be taken and says why, naming the field', async () => {
    await type('apples');
    expect(box().getAttribute('aria-invalid')).toBe('false');
    await key('Enter');
    expect(box().getAttribute('aria-invalid')).toBe('true');
    expect(said()).toContain('Thickness: “apples” is not a number.');
    expect(box().value).toBe('apples');
    await key('Escape');
    expect(box().value).toBe('0.0785');
    expect(fixture.componentInstance.taken).toEqual([]);
  });

  it('takes on leaving, unless only Enter writes', async () => {
    await type('0.08');
    box().dispatchEvent(new Event('blur'));
    await fixture.whenStable();
    expect(fixture.componentInstance.taken.length).toBe(1);
    fixture.componentInstance.enterOnly.set(true);
    await fixture.whenStable();
    await type('0.09');
    box().dispatchEvent(new Event('blur'));
    await fixture.whenStable();
    expect(fixture.componentInstance.taken.length).toBe(1);
    expect(fixture.nativeElement.querySelector('button')?.textContent?.trim()).toBe('Record');
  });

  it('brings half-typed text back after the page was built anew', async () => {
    await type('0.07');
    fixture.destroy();
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    expect(box().value).toBe('0.07');
  });

  it('what this device could not keep says so at the field, and stands there as it was typed', async () => {
    const puts = TestBed.inject(Puts);
    fixture.componentInstance.put = () => (puts.newest = Promise.reject(new Error('no room')));
    await type('2.5 mm');
    await key('Enter');
    for (const end = Date.now() + 20_000; !said().includes('no room') && Date.now() < end; await fixture.whenStable())
      await Promise.resolve();
    expect(said()).toContain('could not keep it (no room)');
    expect(box().value).toBe('2.5 mm');
    // Typed once more and kept, it is done with.
    fixture.componentInstance.put = () => (puts.newest = Promise.resolve());
    await type('2.4 mm');
    expect(said()).not.toContain('no room');
    await key('Enter');
    expect(fixture.componentInstance.taken.at(-1)?.entry.typed).toBe('2.4 mm');
  });

  it('flips the units and back to exactly what was typed', async () => {
    const store = TestBed.inject(Store);
    store.dispatch(uiActions.systemChosen({ system: 'metric' }));
    await fixture.whenStable();
    expect(box().value).toBe('1.994 mm');
    store.dispatch(uiActions.systemChosen({ system: 'inch' }));
    await fixture.whenStable();
    expect(box().value).toBe('0.0785');
  });
});
