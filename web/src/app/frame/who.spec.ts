import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { Screen, openBench, until } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { Outbox } from '../state/outbox';
import { editorFeature } from '../state/editor';
import { UI_KEY, storedUi, uiActions } from '../state/ui';
import { Who } from './who';

describe('who writes here', () => {
  it('a name is kept over a reload, and there is no going on without one', async () => {
    expect(storedUi(null, false).who).toBe('');
    expect(storedUi('{"who":"Mo"}', false).who).toBe('Mo');
    // A device of before, on which somebody had gone on without.
    expect(storedUi('{"who":"","whoAsked":true}', false).who).toBe('');
    expect(UI_KEY).toBe('hot-spline.ui');
    openBench(setUpBuild(), []);
    const screen = await Screen.of(Who);
    await screen.click('Say who works on this device');
    await screen.until(() => document.querySelector('#who-name') !== null);
    const keep = [...document.querySelectorAll('button')].find((one) => one.textContent === 'Keep');
    expect(keep?.disabled).toBeTrue();
    expect(document.body.textContent).not.toContain('Without a name');
  });

  it('the first write asks for a name; nothing is sent before, and what waits gets it', async () => {
    const sent = spyOn(window, 'fetch').and.rejectWith(new TypeError('offline'));
    const bench = openBench(setUpBuild(), []);
    const store = TestBed.inject(Store);
    const outbox = TestBed.inject(Outbox);
    outbox.signedBy(null);
    const screen = await Screen.of(Who);
    const [entry] = assemblyOf(1);
    if (!entry) throw new Error('no entry');
    await outbox.putLedger(bench.editor().id ?? '', { ...entry, who: '' });
    await until(() => outbox.waiting() > 0);
    await screen.until(() => document.querySelector('#who-name') !== null);
    expect(document.body.textContent).toContain('Asked once');
    const posted = () => sent.calls.all().filter(({ args }) => String(args[0]).includes('/ledger'));
    expect(posted()).toEqual([]);
    const signed = new Promise<ReadonlyMap<string, string>>((resolve) => {
      outbox.events.subscribe((event) => {
        if (event.kind === 'signed') resolve(event.entries);
      });
    });
    outbox.signedBy('Mo');
    expect([...(await signed)]).toEqual([[entry.id, 'Mo']]);
    expect((await outbox.pending(bench.editor().id ?? '')).entries.map(({ who }) => who)).toEqual(['Mo']);
    // It asks which shop answers before the first write goes out.
    await until(() => sent.calls.all().some(({ args }) => String(args[0]).includes('/api/shop')));
    store.dispatch(uiActions.whoChosen({ who: 'Mo' }));
    expect(store.selectSignal(editorFeature.selectId)()).toBe(bench.editor().id);
  });
});
