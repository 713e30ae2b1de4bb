import { readFileSync, readdirSync } from 'node:fs';
import { deriveBuild } from '../assembly/derive';
import { readLibraryFile } from '../files/library-file';
import { boardWork } from '../board/board';
import { weakestLinks } from '../shaft/links';
import { readBuildFile, type BuildFile } from '../files/build-file';
import { FORMAT_VERSION } from '../base/version';

const DEMO = new URL('../../../demo/', import.meta.url);
const text = (name: string): string => readFileSync(new URL(name, DEMO), 'utf8');
const files = (): [string, BuildFile][] =>
  readdirSync(DEMO)
    .filter((name) => name.endsWith('.json'))
    .map((name) => [name, readBuildFile(JSON.parse(text(name)))]);

describe('the demo builds', () => {
  it('are files of today: nothing in them is raised from an older version, nothing is refused', () => {
    expect(files().length).toBeGreaterThan(3);
    for (const [name, { build, ledger }] of files()) {
      expect((JSON.parse(text(name)) as { formatVersion: number }).formatVersion).toBe(FORMAT_VERSION);
      const refused = deriveBuild(build, ledger).findings.filter(({ id }) => id.startsWith('refused'));
      expect(refused.map(({ id }) => id))
        .withContext(name)
        .toEqual([]);
    }
    const library = readLibraryFile(text('library/shop-library.json'));
    expect(library.specs.length).toBeGreaterThan(10);
  });

  it('hang together: no stop, and what is signed still stands', () => {
    for (const [name, { build, ledger }] of files()) {
      const derived = deriveBuild(build, ledger, { today: '2026-11-26' });
      expect(derived.findings.filter(({ verdict }) => verdict === 'stop').map(({ id }) => id))
        .withContext(name)
        .toEqual([]);
      for (const axle of ['rear', 'front'] as const)
        expect(weakestLinks(build, derived, axle)[0]?.margin ?? 1)
          .withContext(`${name} ${axle}`)
          .toBeGreaterThanOrEqual(1);
      for (const entry of ledger) {
        if (entry.kind !== 'signature') continue;
        const [axle, gate] = entry.gate.split(' ') as ['rear', 'A' | 'B'];
        const state = derived.gates[axle]?.[gate];
        if (state)
          expect(state.needs.filter(({ met }) => !met).map(({ need }) => need))
            .withContext(`${name} ${entry.gate}`)
            .toEqual([]);
      }
    }
  });

  it('have somebody’s name on every reading, another construction, ratio and use each, and show work in every state', () => {
    const told = files().map(([, { build, ledger }]) => {
      const axle = build.axles.rear ?? build.axles.front;
      expect(ledger.filter(({ who }) => who === '')).toEqual([]);
      return {
        construction: axle?.identity?.construction?.value,
        ratio: axle && axle.finalDrive.ring / axle.finalDrive.pinion,
        use: build.use,
        state: boardWork(build, ledger).state,
      };
    });
    for (const key of ['construction', 'ratio', 'use'] as const)
      expect(new Set(told.map((one) => one[key])).size).toBe(told.length);
    expect(new Set(told.map(({ state }) => state))).toEqual(new Set(['waiting', 'gate', 'work', 'due']));
  });
});
