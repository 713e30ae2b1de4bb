import { newAxleSpec } from '@hot-spline/model';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { Screen, openBench } from '../../testing/harness';
import { libraryCsv } from '@hot-spline/model/csv';
import { LibraryPage } from './library-page';
import { libraryActions, libraryFeature } from '../state/library-slice';
import { newGearboxSpec } from './new-spec';

const id = (n: number): string => `40000000-0000-4000-8000-00000000000${n}`;

describe('the library', () => {
  async function open() {
    openBench();
    const store = TestBed.inject(Store);
    const screen = await Screen.of(LibraryPage);
    store.dispatch(
      libraryActions.loaded({
        specs: [
          { id: id(1), version: 1, archived: false, spec: newAxleSpec('Heron') },
          { id: id(2), version: 4, archived: false, spec: newGearboxSpec('Curlew') },
          { id: id(3), version: 1, archived: true, spec: newAxleSpec('Old one') },
        ],
      }),
    );
    await screen.fixture.whenStable();
    const specs = () => store.selectSignal(libraryFeature.selectSpecs)();
    return { screen, store, specs };
  }

  it('shows what there is and edits the chosen one', async () => {
    const { screen, specs } = await open();
    expect(screen.text).toContain('Heron');
    const curlew = screen.all('.list button').find((button) => button.textContent?.includes('Curlew'));
    await screen.click(curlew ?? 'Curlew');
    await screen.click('Add gear');
    await screen.type('Gear 2', '2.1');
    const box = specs().find((one) => one.id === id(2))?.spec;
    expect(box?.kind === 'gearbox' ? box.gears.map((gear) => gear.ratio.value) : []).toEqual([3.3, 2.1]);
  });

  it('starts a new axle and a new gearbox', async () => {
    const { screen, specs } = await open();
    await screen.click('Axle');
    await screen.type('Axle', 'Fresh axle');
    await screen.click('Gearbox');
    expect(specs().map(({ spec }) => spec.name)).toContain('Fresh axle');
    expect(specs().filter(({ spec }) => spec.kind === 'gearbox').length).toBe(2);
  });

  it('two changes made before the next redraw both count', async () => {
    const { screen, specs } = await open();
    const name = screen.find<HTMLInputElement>('#library-name');
    const construction = screen.find<HTMLSelectElement>('#library-construction');
    name.value = 'Heron two';
    name.dispatchEvent(new Event('input'));
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    construction.value = construction.options[construction.options.length - 1]?.value ?? '';
    construction.dispatchEvent(new Event('change'));
    await screen.fixture.whenStable();
    const spec = specs().find((one) => one.id === id(1))?.spec;
    expect(spec?.name).toBe('Heron two');
    expect(spec?.kind === 'axle' ? spec.construction.value : '').not.toBe('integral-head-shim');
  });

  it('says what was changed elsewhere; mine goes on top of it', async () => {
    const { screen, store, specs } = await open();
    await screen.type('Axle', 'Heron mine');
    const current = { id: id(1), version: 6, archived: false, spec: newAxleSpec('Heron theirs') };
    store.dispatch(libraryActions.stale({ current }));
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('“Heron theirs” was saved from another tab');
    await screen.click('Keep mine');
    expect(screen.all('[role="alert"]').length).toBe(0);
    const kept = specs().find((one) => one.id === id(1));
    expect([kept?.spec.name, kept?.version]).toEqual(['Heron mine', 6]);
  });

  it('where the other is taken, mine becomes a spec of its own: nothing is lost', async () => {
    const { screen, store, specs } = await open();
    await screen.type('Axle', 'Heron mine');
    const current = { id: id(1), version: 6, archived: false, spec: newAxleSpec('Heron theirs') };
    store.dispatch(libraryActions.stale({ current }));
    await screen.fixture.whenStable();
    await screen.click('Take the other, mine beside it');
    expect(specs().find((one) => one.id === id(1))?.spec.name).toBe('Heron theirs');
    expect(specs().find(({ spec }) => spec.name === 'Heron mine, mine')?.version).toBe(0);
  });

  it('what was saved since the library was asked for stays as it is', async () => {
    const { store, specs } = await open();
    const [fresh, renamed] = [id(9), newAxleSpec('Heron two')];
    store.dispatch(libraryActions.written({ id: id(1), version: 1, spec: renamed }));
    store.dispatch(libraryActions.written({ id: fresh, version: 0, spec: newAxleSpec('Fresh') }));
    store.dispatch(libraryActions.saved({ id: id(1), version: 2 }));
    const old = { id: id(1), version: 1, archived: false, spec: newAxleSpec('Heron') };
    store.dispatch(libraryActions.loaded({ specs: [old] }));
    expect(specs().find((one) => one.id === id(1))?.spec.name).toBe('Heron two');
    expect(specs().some((one) => one.id === fresh)).toBeTrue();
    const newer = { ...old, version: 3, spec: newAxleSpec('Heron of another tab') };
    store.dispatch(libraryActions.loaded({ specs: [newer] }));
    expect(specs().find((one) => one.id === id(1))?.spec.name).toBe('Heron of another tab');
  });

  it('says of a file what is new, changed and the same before anything of it is taken in', async () => {
    const { screen, specs } = await open();
    const heron = newAxleSpec('Heron', 'transaxle');
    const text = libraryCsv([
      { id: id(1), spec: heron },
      { id: id(2), spec: newGearboxSpec('Curlew') },
      { id: null, spec: newAxleSpec('Fresh') },
    ]);
    await screen.upload('Library file to import', 'library.csv', text);
    await screen.until(() => screen.text.includes('“library.csv”'));
    const panel = screen.find('[aria-label="What the file brings"]').textContent ?? '';
    expect(panel.replace(/\s+/g, ' ')).toContain('1 new, 1 changed, 1 the same.');
    expect(panel).toContain('comes: construction transaxle');
    expect(specs().length).toBe(3);
    await screen.click('Take 2 in');
    expect(specs().find((one) => one.id === id(1))?.spec).toEqual(heron);
    expect(specs().filter(({ spec }) => spec.name === 'Fresh').length).toBe(1);
    expect(specs().find((one) => one.id === id(2))?.version).toBe(4);
    await screen.upload('Library file to import', 'no.json', '{"format":"other"}');
    await screen.until(() => screen.text.includes('Nothing taken.'));
    expect(specs().length).toBe(4);
  });

  it('a server that is away is told', async () => {
    const { screen, store } = await open();
    store.dispatch(libraryActions.failed({ problem: 'The server can’t be reached.' }));
    await screen.fixture.whenStable();
    expect(screen.find('[role="alert"]').textContent).toContain('can’t be reached');
    expect(screen.text).toContain('Heron');
  });

  it('what is put away can be brought back', async () => {
    const { screen, store, specs } = await open();
    store.dispatch(libraryActions.wasPutAway({ id: id(1), archived: true }));
    await screen.fixture.whenStable();
    expect(screen.all('button').some((button) => button.getAttribute('aria-label') === 'Bring Heron back')).toBeTrue();
    expect(specs().find((one) => one.id === id(1))?.archived).toBeTrue();
  });

  it('says what to do first when it is empty', async () => {
    openBench();
    const screen = await Screen.of(LibraryPage);
    TestBed.inject(Store).dispatch(libraryActions.loaded({ specs: [] }));
    await screen.fixture.whenStable();
    expect(screen.text).toContain('The library is empty');
  });

  it('says how the shop does it once, and a new plate unit follows', async () => {
    const { screen, specs } = await open();
    await screen.click('How we do it');
    await screen.choose('Plates press by', 'uniform-pressure');
    const spec = specs().find((one) => one.spec.kind === 'schools')?.spec;
    expect(spec?.kind === 'schools' && spec.wearModel).toBe('uniform-pressure');
    const ringGear = () => {
      const now = specs().find((one) => one.spec.kind === 'schools')?.spec;
      return now?.kind === 'schools' ? now.ringGear : '';
    };
    await screen.choose('Ring gear is', 'pulled-on');
    expect(ringGear()).toBe('heated');
    expect(screen.field('Ring gear is').value).toBe('heated');
    expect(screen.text).toContain('strains the bolts');
    await screen.type('Why the ring gear is pulled on', 'no oven at the track');
    await screen.choose('Ring gear is', 'pulled-on');
    expect(ringGear()).toBe('pulled-on');
    expect(screen.all('button').some((button) => button.textContent?.trim() === 'How we do it')).toBeFalse();
  });

  it('keeps friction by plates and oil, says what it teaches, and takes coefficients by hand', async () => {
    const { screen, specs } = await open();
    await screen.click('Friction');
    await screen.type('Friction plates', 'Carbon on steel');
    await screen.type('Oil and additive', '85W-140');
    for (const value of ['0.12', '0.13']) await screen.type('Add a coefficient by hand', value);
    expect(screen.text).toContain('0.125');
    expect(screen.text).toContain('three readings or more say');
    await screen.type('Add a coefficient by hand', '0.14');
    expect(screen.text).toContain('19 of 20 next readings, from 3');
    await screen.type('Add a coefficient by hand', '7');
    expect(screen.said('Add a coefficient by hand')).toContain('Coefficient must be a number');
    await screen.click('Remove 0.13 of put in by hand');
    await screen.click('Really remove 0.13 of put in by hand');
    const spec = specs().find((one) => one.spec.kind === 'friction')?.spec;
    expect(spec?.kind === 'friction' ? [spec.name, spec.oil, spec.readings.length] : []).toEqual([
      'Carbon on steel',
      '85W-140',
      2,
    ]);
  });
});
