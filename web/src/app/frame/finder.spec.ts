import { newWork } from '@hot-spline/model';
import { Screen, openBench, otherSetUps } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import { api } from '../state/api';
import { Finder } from './finder';

/** What people ask for in their own words, and what one of the first five answers is: ours, beside what newcomers asked. */
const QUESTIONS: readonly (readonly [typed: string, answer: RegExp])[] = [
  ['backlash', /sheet Mesh: |field Backlash|figure Backlash/],
  ['lash', /Backlash/],
  ['oil', /Fill|oil|Volume|Fluid/i],
  ['gear oil', /Fluid|Fill|Oil/i],
  ['friction modifier', /Additive/i],
  ['ring bolts', /Ring bolts/i],
  ['crown wheel bolts', /Ring bolts/i],
  ['bolt torque', /Ring bolts|torque/i],
  ['ramp angle', /ramp/i],
  ['stack height', /Stack|height/i],
  ['pack height', /height|Stack/i],
  ['rollout', /circumference|Tyre|Rolling/i],
  ['rolling radius', /Tyre|Rolling|radius/i],
  ['dyno', /Engine|curve/i],
  ['torque curve', /Engine|curve/i],
  ['speedometer', /Speed is read|speed reading|Recalibrate/i],
  ['delete build', /Put a build away/],
  ['archive', /Archive|Put a build away/],
  ['run-out', /run-?out/i],
  ['wobble', /run-?out/i],
  ['preload', /Preload/],
  ['turning torque', /turning torque|Preload/i],
  ['pinion depth', /Pinion depth/],
  ['mounting distance', /depth|mounting/i],
  ['pattern', /Pattern/i],
  ['contact patch', /Pattern/i],
  ['shims', /shim/i],
  ['side shims', /shims/i],
  ['drawer', /drawer|shims/i],
  ['breakaway', /breakaway|wrench/i],
  ['torque wrench', /Torque wrench|wrench/i],
  ['clutch pack', /Clutch packs/],
  ['plates', /Clutch packs|Plates/i],
  ['belleville', /spring/i],
  ['limited slip', /Unit/i],
  ['spool', /Unit/i],
  ['final drive', /Final drive|Tyre and ratio/i],
  ['diff ratio', /Final drive|ratio/i],
  ['tyre', /Tyre/],
  ['tire', /Tyre/],
  ['rev limit', /Limiter/i],
  ['redline', /Limiter/i],
  ['gear ratios', /Gear|gearbox/i],
  ['stall', /stall|converter|coupling/i],
  ['car weight', /Weight/],
  ['aero', /Drag/i],
  ['quarter mile', /Run/],
  ['lap', /Course|Gear sets/i],
  ['price', /price|cost/i],
  ['match number', /Match number/],
  ['crush sleeve', /spacer|Crush/i],
  ['threadlocker', /threadlocker|compound/i],
  ['c-clips', /clips|Shafts held by/i],
  ['half shaft', /Shaft/i],
  ['whine', /Whine|noise/i],
  ['gate a', /Gate A|Gates/],
  ['bed in', /bedding|Close, run in|Run in/i],
  ['print', /Print|summary|Papers/i],
  ['pdf', /Print|Papers/i],
  ['metric', /Flip inch and metric/],
  ['dark', /day and night/],
  ['new build', /New build/],
  ['mph', /speed/i],
];

describe('the finder', () => {
  async function finder(): Promise<(typed: string) => Promise<string[]>> {
    spyOn(api, 'customers').and.resolveTo([]);
    const build = setUpBuild();
    const rear = build.axles.rear;
    if (rear) rear.work = newWork('ratio-swap', 'plate');
    openBench(build, [], 'metric', [otherSetUps()]);
    const screen = await Screen.of(Finder, { visible: true });
    const field = await (async () => {
      await screen.until(() => document.getElementById('finder-box') !== null);
      return document.getElementById('finder-box') as HTMLInputElement;
    })();
    const found = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('#finder-hits li')];
    const typed = async (text: string): Promise<string[]> => {
      field.value = text;
      field.dispatchEvent(new Event('input', { bubbles: true }));
      await screen.fixture.whenStable();
      return found().map((hit) => [...hit.children].map((part) => part.textContent?.trim()).join(' '));
    };
    // Fields are fetched when it opens.
    for (let i = 0; i < 100 && !(await typed('Bolt circle')).some((hit) => hit.startsWith('field')); i++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    return typed;
  }

  it('answers sixty questions in the words of the trade, among the first five', async () => {
    const typed = await finder();
    const wrong: string[] = [];
    for (const [text, answer] of QUESTIONS) {
      const first = (await typed(text)).slice(0, 5);
      if (!first.some((hit) => answer.test(hit))) wrong.push(`${text}: ${first.join(' | ')}`);
    }
    expect(QUESTIONS.length).toBeGreaterThanOrEqual(60);
    expect(wrong).toEqual([]);
  });

  it('knows a build by its id, typed or as a label’s code carries it', async () => {
    const typed = await finder();
    const id = '405556c0-90ee-4435-8a54-5901fa51fa20';
    for (const text of [id, `http://shop.example/spline/builds/${id}?read=12`, `  ${id.toUpperCase()} `])
      expect(await typed(text)).toEqual([jasmine.stringMatching(/^code/)]);
  });

  it('says where nothing of a name is', async () => {
    const typed = await finder();
    expect((await typed('xyzzy'))[0]).toMatch(/^$|Nothing of that name/);
  });
});
