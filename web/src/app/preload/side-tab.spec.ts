import { entryOf } from '@hot-spline/core';
import { USUAL_SCHOOLS } from '@hot-spline/model';
import { Screen, keepSpecs, openBench } from '../../testing/harness';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { PreloadSheet } from './preload-sheet';

describe('side preload', () => {
  const open = () => {
    const build = setUpBuild();
    const sheet = build.axles.rear?.identity?.sheet;
    // Of our own invention.
    const band = { low: entryOf(0.1, 'mm'), high: entryOf(0.16, 'mm') };
    if (sheet) sheet.caseGrowth = { value: band, origin: 'measured', where: '' };
    return openBench(build, assemblyOf(1));
  };
  const names = (screen: Screen<PreloadSheet>) =>
    screen.all('hs-side-tab h2').map((one) => one.textContent?.replace(/\s+/g, ' ').trim() ?? '');

  it('has every method side by side, the shop’s own first', async () => {
    open();
    keepSpecs({ kind: 'schools', name: 'Ours', ...USUAL_SCHOOLS, carrierPreload: 'spread', ringGearNote: '' });
    const screen = await Screen.of(PreloadSheet, { tab: 'side' });
    expect(names(screen)).toHaveSize(5);
    expect(names(screen)[0]).toContain('Growth of the case across the caps this shop’s way');
    expect(screen.text).toContain('what is wanted: not said');
  });

  it('a reading out of its band says stop there, in it fits; a word is a word', async () => {
    const bench = open();
    const screen = await Screen.of(PreloadSheet, { tab: 'side' });
    const growth = () => screen.find('#side-growth-rear');
    const field = growth().querySelector('input');
    if (!field) throw new Error('no field');
    const read = async (text: string) => {
      field.value = text;
      field.dispatchEvent(new Event('input'));
      field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await screen.fixture.whenStable();
      return bench.derived()?.preload.rear?.side.find(({ method }) => method === 'growth')?.verdict;
    };
    expect(await read('0.3 mm')).toBe('stop');
    expect(await read('0.12 mm')).toBe('fits');
    const feel = screen.find('#side-feel-rear').querySelector<HTMLInputElement>('input[value=right]');
    feel?.click();
    await screen.fixture.whenStable();
    expect(bench.derived()?.findings.find(({ id }) => id === 'preload.rear.side-feel')?.verdict).toBe('watch');
  });
});
