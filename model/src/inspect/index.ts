import { AXLES, type AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { defineCapability } from '../frame/capability';
import { fact, type Verdict } from '../frame/finding';
import { lastOf, type Readings } from '../frame/readings';
import { inspectedParts, type PartFinding } from './parts';
import { inspectSubjects, partDecided, partDonor, partFound, partPhoto } from './readings';
import { inspectSteps } from './steps';
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
  /** What was found on the donor part; null while nobody has looked. */
  readonly donorFound: string | null;
  readonly photos: readonly string[];
  readonly verdict: Verdict;
}

export function partStates(name: AxleName, axle: Axle, readings: Readings): readonly PartState[] {
  return inspectedParts(axle).map(({ id, name: called, findings }): PartState => {
    const keys = { axle: name, part: id };
    const [seen, other, done, shot] = [partFound, partDonor, partDecided, partPhoto].map(
      ({ key }) => readings.get(key(keys))?.value,
    );
    const found = seen?.of === 'text' ? seen.text : null;
    const donorFound = other?.of === 'text' ? other.text : null;
    const [means, donorMeans] = [found, donorFound].map((text) => findings.find((one) => one.found === text) ?? null);
    const decided = done?.of === 'choice' ? (done.choice as PartDecision) : null;
    return {
      id,
      name: called,
      findings,
      found,
      means: means ?? null,
      decided,
      donorFound,
      photos: shot?.of === 'photos' ? shot.photos : [],
      // What is replaced troubles nobody; what runs on is judged by what was found, a donor part by what was found on it.
      verdict: {
        undecided: 'not-yet' as const,
        replace: 'fits' as const,
        'run-on': found === null ? ('fits' as const) : (means?.verdict ?? 'watch'),
        donor: donorFound === null ? ('not-yet' as const) : (donorMeans?.verdict ?? 'watch'),
      }[decided ?? 'undecided'],
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
  work: { steps: inspectSteps },
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
      for (const { id, name: called, findings, verdict, found, means, decided, donorFound } of parts) {
        if (decided === 'donor' && verdict !== 'fits')
          d.finding({
            id: `inspect.${name}.${id}.donor`,
            verdict,
            place: { sheet: 'inspect', axle: name, field: `donor-${id}-${name}` },
            station: 'final',
            figures: [],
            rule: 'a donor part is used with its own findings (common practice)',
            facts: {
              axle: name,
              part: called,
              found: donorFound ?? '',
              means: findings.find((one) => one.found === donorFound)?.means ?? '',
            },
            say: words.donor,
          });
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
  knows: (name, states, { readings }) => ({
    steps: {
      inspect: {
        missing: () => {
          const open = states[name]?.filter(({ decided }) => decided === null) ?? [];
          return open.length > 0 ? `${open.length} parts not decided` : null;
        },
        proof: () =>
          lastOf(
            readings,
            name,
            inspectSubjects.map(({ what }) => what),
          ),
      },
    },
  }),
});
