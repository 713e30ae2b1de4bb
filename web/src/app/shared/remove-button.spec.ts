import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { MessageService } from 'primeng/api';
import { TestBed } from '@angular/core/testing';
import { Screen, openBench } from '../../testing/harness';
import { RemoveButton } from './remove-button';

@Component({
  imports: [RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      <li><input id="one" /><hs-remove what="one" [disabled]="stays()" (removed)="gone.set(gone() + ' one')" /></li>
      <li><input id="two" /><hs-remove what="two" [asks]="true" (removed)="gone.set(gone() + ' two')" /></li>
    </ul>
  `,
})
class Rows {
  readonly gone = signal('');
  readonly stays = signal(false);
}

const altDelete = (): KeyboardEvent => new KeyboardEvent('keydown', { key: 'Delete', altKey: true, bubbles: true });

describe('a button that removes its row', () => {
  it('is no stop of Tab; Alt Delete in the row does the same, Delete alone does not', async () => {
    openBench();
    const screen = await Screen.of(Rows);
    const rows = screen.fixture.componentInstance;
    expect(screen.all('hs-remove button').map(({ tabIndex }) => tabIndex)).toEqual([-1, -1]);
    const field = screen.find<HTMLInputElement>('#one');
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Delete', bubbles: true }));
    expect(rows.gone()).toBe('');
    field.dispatchEvent(altDelete());
    expect(rows.gone()).toBe(' one');
    rows.stays.set(true);
    await screen.fixture.whenStable();
    field.dispatchEvent(altDelete());
    expect(rows.gone()).withContext('what may not go stays').toBe(' one');
  });

  it('takes the removal back at the place, as long as nothing else was changed', async () => {
    const bench = openBench();
    const said = spyOn(TestBed.inject(MessageService), 'add');
    const screen = await Screen.of(Rows);
    const undo = spyOn(bench, 'undo');
    await screen.click('Remove one');
    const message = said.calls.mostRecent().args[0];
    expect(message.summary).toBe('Removed one');
    const { undo: takeBack } = message.data as { undo: () => void };
    takeBack();
    expect(undo).toHaveBeenCalledTimes(1);
    bench.change((draft) => (draft.name = 'another'));
    takeBack();
    expect(undo).toHaveBeenCalledTimes(1);
    expect(said.calls.mostRecent().args[0].summary).toContain('changed since');
  });

  it('asks first where nothing is undone, and drops the question', async () => {
    openBench();
    const screen = await Screen.of(Rows);
    const rows = screen.fixture.componentInstance;
    await screen.click('Remove two');
    expect(rows.gone()).toBe('');
    screen.find('#two').closest('li')?.querySelector('button')?.dispatchEvent(new Event('blur'));
    await screen.fixture.whenStable();
    await screen.click('Remove two');
    await screen.click('Really remove two');
    expect(rows.gone()).toBe(' two');
  });
});
