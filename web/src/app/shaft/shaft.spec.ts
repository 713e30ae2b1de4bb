import { newShafts, type Build, type Shafts } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { ShaftsSheet } from './shafts-sheet';

function shafted(): Build {
  const build = setUpBuild();
  if (build.axles.rear) build.axles.rear.shafts = newShafts(28);
  return build;
}
const shafts = (bench: Bench): Shafts => {
  const found = bench.build()?.axles.rear?.shafts;
  if (!found) throw new Error('no shafts');
  return found;
};
const type = async (screen: Screen<ShaftsSheet>, id: string, text: string): Promise<void> => {
  const field = screen.find<HTMLInputElement>(`#${id}`);
  field.value = text;
  field.dispatchEvent(new Event('input', { bubbles: true }));
  await screen.fixture.whenStable();
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  await screen.fixture.whenStable();
};

describe('the shafts sheet', () => {
  it('begins with the splines of the axle’s spec', async () => {
    const build = shafted();
    const axle = build.axles.rear;
    if (axle?.identity) {
      axle.shafts = null;
      axle.identity.shaftSplines = { value: 35, origin: 'measured' };
    }
    const bench = openBench(build);
    const screen = await Screen.of(ShaftsSheet);
    await screen.click('Describe the shafts');
    expect([shafts(bench).left.splines, shafts(bench).right.splines]).toEqual([35, 35]);
  });

  it('more splines and better steel hold more; the right one is made as the left one', async () => {
    const bench = openBench(shafted());
    const screen = await Screen.of(ShaftsSheet);
    const margin = (side: string): number => Number(screen.figure(`shaft.rear.${side}.margin`).replace(/[^\d.]/g, ''));
    const before = margin('left');
    await type(screen, 'splines-left-rear', '35');
    expect(margin('left')).toBeGreaterThan(before * 1.8);
    await screen.choose('Steel, shear yield, from memory', 'high-nickel');
    await screen.click('like left');
    expect(shafts(bench).right).toEqual(shafts(bench).left);
    expect(margin('right')).toBeCloseTo(margin('left'), 2);
  });

  it('orders the links, the weakest first', async () => {
    openBench(shafted());
    const screen = await Screen.of(ShaftsSheet);
    await type(screen, 'shear-right-rear', '40');
    expect(screen.all('.links li a')[0]?.textContent).toBe('Right shaft');
    expect(screen.all('.links li')[0]?.querySelector('.bar span')?.className).toBe('stop');
  });

  it('describes the prop shaft in the units of the shop, and takes it off again', async () => {
    const bench = openBench(shafted());
    const screen = await Screen.of(ShaftsSheet);
    await screen.click('Describe the prop shaft');
    expect(shafts(bench).prop?.outer.typed).toBe('70 mm');
    await type(screen, 'prop-between-rear', '2400 mm');
    expect(bench.derived()?.findings.find(({ id }) => id === 'shaft.rear.critical')?.verdict).toBe('stop');
    await type(screen, 'prop-between-rear', '900 mm');
    expect(bench.derived()?.findings.find(({ id }) => id === 'shaft.rear.critical')?.verdict).toBe('fits');
    await type(screen, 'prop-rear-angle-rear', '5');
    expect(bench.derived()?.findings.find(({ id }) => id === 'shaft.rear.angles')?.verdict).not.toBe('fits');
    await screen.click('Remove the prop shaft');
    expect(shafts(bench).prop).toBeNull();
  });

  it('a tube with no bore is refused where it is typed, nothing is lost', async () => {
    const bench = openBench(shafted());
    const screen = await Screen.of(ShaftsSheet);
    await type(screen, 'splines-left-rear', '3');
    expect(shafts(bench).left.splines).toBe(28);
    await type(screen, 'engagement-left-rear', '20 mm');
    expect(bench.derived()?.findings.find(({ id }) => id === 'shaft.rear.left.engaged')?.verdict).toBe('watch');
    await type(screen, 'pin-gap-left-rear', '0 mm');
    expect(bench.derived()?.findings.find(({ id }) => id === 'shaft.rear.left.pin')?.verdict).toBe('stop');
  });
});
