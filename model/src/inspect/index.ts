import { AXLES, type AxleName } from '../document/names';
import type { Axle } from '../document/schema';
import { defineCapability } from '../engine/capability';
import { fact, type Verdict } from '../engine/finding';
import type { Readings } from '../engine/readings';
import { inspectedParts, type PartFinding } from './parts';
import { inspectSubjects, partDecided, partFound, partPhoto } from './readings';
import * as words from './words';

export const DECISIONS = { 'run-on': 'Run on', replace: 'Replace', donor: 'Donor part' } as const;
export type PartDecision = keyof typeof DECISIONS;

export interface PartState {
  readonly id: string;
  readonly name: string;
  readonly findings: readonly PartFinding[];
  /** What was found, in words; null while nobody has looked. */
  readonly found: string | null;
  /** What that means, where it is one of those that are known. */
  readonly means: PartFinding | null;
  readonly decided: PartDecision | null;
  readonly photos: readonly string[];
  readonly verdict: Verdict;
}

export function partStates(name: AxleName, axle: Axle, readings: Readings): readonly PartState[] {
  return inspectedParts(axle).map(({ id, name: called, findings }): PartState => {
    const keys = { axle: name, part: id };
    const [seen, done, shot] = [partFound, partDecided, partPhoto].map(({ key }) => readings.get(key(keys))?.value);
    const found = seen?.of === 'text' ? seen.text : null;
    const means = findings.find((one) => one.found === found) ?? null;
    const decided = done?.of === 'choice' ? (done.choice as PartDecision) : null;
    const bad = means?.verdict ?? (found === null ? 'fits' : 'watch');
    // What is replaced troubles nobody; what runs on is judged by what was found.
    const verdict: Verdict = decided === null ? 'not-yet' : decided === 'run-on' ? bad : 'fits';
    return {
      id,
      name: called,
      findings,
      found,
      means,
      decided,
      photos: shot?.of === 'photos' ? shot.photos : [],
      verdict,
    };
  });
}

export type Inspections = Partial<Record<AxleName, readonly PartState[]>>;

/** What was found on the parts of an axle that is apart, and what is done about it. */
export const inspect = defineCapability({
  name: 'inspect',
  needs: [],
  figures: {},
  subjects: inspectSubjects,
  place: { sheet: 'inspect', field: 'found-races' },
  station: 'final',
  inputs: ({ build, readings }) => ({ rear: build.axles.rear, front: build.axles.front, readings }),
  derive: ({ readings, ...axles }, d): Inspections => {
    const all: Inspections = {};
    for (const name of AXLES) {
      const axle = axles[name];
      if (!axle?.work) continue;
      const parts = partStates(name, axle, readings);
      all[name] = parts;
      for (const { id, name: called, verdict, found, means, decided } of parts) {
        if (decided !== 'run-on' || (verdict !== 'stop' && verdict !== 'watch')) continue;
        d.finding({
          id: `inspect.${name}.${id}`,
          verdict,
          place: { sheet: 'inspect', axle: name, field: `found-${id}-${name}` },
          station: 'final',
          figures: [],
          rule: 'findings of common practice',
          facts: { axle: name, part: called, found: found ?? '', means: means?.means ?? '' },
          say: words.runsOn,
        });
      }
      const looked = parts.filter(({ found, decided }) => found !== null || decided !== null);
      const open = parts.filter(({ decided }) => decided === null);
      if (looked.length > 0)
        d.finding({
          id: `inspect.${name}.all`,
          verdict: open.length > 0 ? 'not-yet' : 'fits',
          place: { sheet: 'inspect', axle: name, field: `found-${(open[0] ?? parts[0])?.id ?? 'races'}-${name}` },
          station: 'final',
          figures: [],
          rule: 'every part is decided before it goes together (common practice)',
          facts: {
            axle: name,
            open: open.map((one) => one.name.toLowerCase()).join(', '),
            count: fact(open.length, 'count'),
          },
          say: words.all,
        });
    }
    return all;
  },
});
