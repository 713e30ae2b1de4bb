import { ChangeDetectionStrategy, Component, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import {
  STATIONS,
  deriveBuild,
  readBuildFile,
  startBuild,
  type Build,
  type Finding,
  type LedgerEntry,
  type Place,
} from '@hot-spline/model';
import drift from '../../../model/src/document/old/7/kittiwake-drift-coupe.json';
import electric from '../../../model/src/document/old/7/plover-electric-hatch.json';
import truck from '../../../model/src/document/old/7/bracken-raid-truck.json';
import single from '../../../model/src/document/old/7/wren-hill-climb.json';
import { Screen, openBench } from '../testing/harness';
import { Finder } from './frame/finder';
import { Line } from './frame/line';
import { Rail } from './frame/rail';
import type { WebCapability } from './shared/descriptor';
import { CAPABILITIES, providersOf, sheetRoutes } from './sheets';
import { Store } from '@ngrx/store';
import { uiActions } from './state/ui';

const twice = <T>(list: readonly T[]): T[] => list.filter((one, i) => list.indexOf(one) !== i);
const sheets = CAPABILITIES.flatMap((one) => one.sheets);

/** Every field that a finding may name is on its sheet and tab, under its own name. */
async function expectPlace({ sheet, tab, field, axle }: Place, cache: Map<string, Screen<unknown>>): Promise<void> {
  const descriptor = sheets.find((one) => one.sheet === sheet);
  if (!descriptor) return fail(`no sheet ${sheet}`);
  if (tab !== undefined)
    expect(descriptor.tabs.map((one) => one.tab))
      .withContext(`${sheet} ${field}`)
      .toContain(tab);
  const key = `${sheet} ${tab ?? ''} ${axle ?? ''}`;
  if (axle) TestBed.inject(Store).dispatch(uiActions.axleChosen({ axle }));
  const component = (await descriptor.load()) as Type<unknown>;
  const known = cache.get(key) ?? (await Screen.of(component, tab === undefined ? {} : { tab }));
  cache.set(key, known);
  await known.fixture.whenStable();
  expect(document.getElementById(field)).withContext(`${key}: ${field}`).not.toBeNull();
}

describe('every sheet', () => {
  it('has an address, a key and tabs of its own, and the Line has each station once', () => {
    expect(twice(sheets.map(({ sheet }) => sheet))).toEqual([]);
    expect(twice([...sheets.map(({ key }) => key), 'b'])).toEqual([]);
    for (const { tabs } of sheets) expect(twice(tabs.map(({ tab }) => tab))).toEqual([]);
    const kinds = CAPABILITIES.flatMap((one) => one.stations.map(({ kind }) => kind));
    expect([...kinds].sort()).toEqual([...STATIONS].sort());
    for (const { sheet } of CAPABILITIES.flatMap((one) => one.stations))
      expect(sheets.some((one) => one.sheet === sheet))
        .withContext(sheet)
        .toBeTrue();
  });

  const files = { drift, electric, truck, single };
  const builds: [string, { build: Build; ledger: readonly LedgerEntry[] }][] = [
    ...Object.entries(files).map(
      ([name, file]) => [name, readBuildFile(file)] as [string, ReturnType<typeof readBuildFile>],
    ),
    [
      'started',
      {
        build: startBuild({ name: 'N', vehicle: '', use: 'rock', driven: 'both', power: 'automatic', axle: null }),
        ledger: [],
      },
    ],
  ];
  for (const [name, { build, ledger }] of builds) {
    it(`has the place of every finding of ${name}`, async () => {
      openBench(build, [...ledger]);
      const seen = new Map<string, Finding>();
      for (const follow of ['rear', 'front'] as const)
        for (const finding of deriveBuild(build, ledger, { follow, today: '2027-11-25' }).findings)
          seen.set(finding.id, finding);
      expect(seen.size).toBeGreaterThan(2);
      const cache = new Map<string, Screen<unknown>>();
      for (const { place } of seen.values()) {
        await expectPlace(place, cache);
        for (const [key, screen] of cache) {
          screen.fixture.destroy();
          cache.delete(key);
        }
      }
      // Generous: a busy machine is no failure.
    }, 30_000);
  }
});

@Component({
  selector: 'hs-toy-sheet',
  template: '<input id="toy-gap" />',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class ToySheet {}

const toy: WebCapability = {
  name: 'toy',
  sheets: [
    {
      sheet: 'toy',
      name: 'Toy gaps',
      group: 'Specify',
      key: 'y',
      tabs: [{ tab: 'one', label: 'One' }],
      load: () => Promise.resolve(ToySheet),
      parts: () => [{ name: 'toy part', more: '0.1 mm', place: { sheet: 'toy', field: 'toy-gap' } }],
    },
  ],
  stations: [],
};

describe('a capability that is added to the list', () => {
  beforeEach(() => {
    openBench(undefined, [], 'metric', providersOf([...CAPABILITIES, toy]));
  });

  it('appears in routes, on the Rail and in the finder', async () => {
    expect(sheetRoutes([...CAPABILITIES, toy]).map(({ path }) => path)).toContain('toy');
    const rail = await Screen.of(Rail);
    expect(rail.text).toContain('Toy gaps');
    const finder = await Screen.of(Finder, { visible: true });
    await finder.fixture.whenStable();
    const box = document.querySelector<HTMLInputElement>('#finder-box');
    if (!box) return fail('no finder');
    box.value = 'toy';
    box.dispatchEvent(new Event('input'));
    await finder.fixture.whenStable();
    const hits = [...document.querySelectorAll('#finder-hits li')].map((hit) => hit.textContent ?? '');
    expect(hits.some((hit) => hit.includes('Toy gaps') && hit.includes('g y'))).toBeTrue();
    expect(hits.some((hit) => hit.includes('toy part'))).toBeTrue();
    const line = await Screen.of(Line);
    expect(line.all('li').length).toBeGreaterThan(5);
  });
});
