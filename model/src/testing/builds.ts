import { readFileSync, readdirSync } from 'node:fs';
import { entryOf, type Entry } from '@hot-spline/core';
import { readBuildFile, type BuildFile } from '../files/build-file';
import type { Build } from '../document/schema';
import type { PlateSpec } from '../pack/schema';
import type { Reading } from '../frame/readings';
import type { SubjectOf } from '../frame/subjects';
import { numberValue } from '../frame/values';

/** The newest kept documents: what is tested with does not move when the demo builds are changed. */
const kept = new URL('../document/old/7/', import.meta.url);

/** Every kept build by its name, read as the server reads it. */
export function keptFiles(): Record<string, BuildFile> {
  return Object.fromEntries(
    readdirSync(kept)
      .filter((name) => name.endsWith('.json') && name !== 'figures.json' && name !== 'shop-library.json')
      .map((name) => [name, readBuildFile(JSON.parse(readFileSync(new URL(name, kept), 'utf8')))]),
  );
}

export function driftBuild(): BuildFile {
  return structuredClone(keptFiles()['kittiwake-drift-coupe.json'] as BuildFile);
}

/** A copy of a build with its rear plate unit changed. */
export function withPlate(build: Build, change: Partial<PlateSpec>): Build {
  const copy = structuredClone(build);
  const unit = copy.axles.rear?.unit;
  if (!unit?.plate) throw new Error('the build has no rear plate unit');
  unit.plate = { ...unit.plate, ...change };
  return copy;
}

let made = 0;
export function testId(): string {
  made += 1;
  return `10000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
}

export function reading(subject: SubjectOf, value: Entry = entryOf(2, 'mm'), at = '2026-01-02T03:04:05.000Z'): Reading {
  const counts = subject.what === 'breakaway' ? 'one' : 'least';
  const written = { id: testId(), at, who: '' };
  return {
    kind: 'reading',
    ...written,
    subject,
    value: numberValue(value, counts),
    state: {},
    instrument: 'Micrometer',
  };
}
