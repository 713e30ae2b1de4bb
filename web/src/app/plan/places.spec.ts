import {
  BOXES,
  CONSTRUCTIONS,
  InputError,
  JOBS,
  PERMITTED,
  RETENTIONS,
  UNIT_KINDS,
  presetOf,
  type Facts,
  type Operation,
} from '@hot-spline/core';
import { CAPABILITIES } from '../sheets';
import { readDay } from '../shared/day-reader';
import { TOOL_STATES, PART_STATES, neededParts, newParts, orderOfWork } from '@hot-spline/model';

/** Every operation that any job has, each once. */
function everyOperation(): readonly Operation[] {
  const all = new Map<string, Operation>();
  for (const construction of CONSTRUCTIONS)
    for (const depthShim of PERMITTED[construction].depthShim)
      for (const unitKind of UNIT_KINDS)
        for (const retention of RETENTIONS)
          for (const job of JOBS)
            for (const box of BOXES) {
              const facts: Facts = {
                ...presetOf(job, unitKind),
                construction,
                depthShim,
                ringPlacedBy: PERMITTED[construction].ringPlacedBy[0] ?? 'none',
                unitKind,
                retention,
                box,
                spacer: 'collapsible',
                depth: 'gauge-first',
                bearings: 'set-up',
                ringGear: 'heated',
                ringHand: null,
                ringOff: null,
                pinionOut: null,
                lockerRings: 'after-dry-trial',
                brake: null,
                wheelBearing: null,
                outerSeal: null,
                spread: null,
              };
              for (const step of orderOfWork(facts)) all.set(`${step.id} ${step.place?.sheet ?? ''}`, step);
            }
  return [...all.values()];
}

describe('where steps lead', () => {
  const sheets = new Map(CAPABILITIES.flatMap(({ sheets: of }) => of).map((sheet) => [sheet.sheet, sheet]));

  it('to sheets and tabs that are there', () => {
    const operations = everyOperation();
    expect(operations.length).toBeGreaterThan(60);
    for (const { id, place } of operations) {
      if (!place) continue;
      const sheet = sheets.get(place.sheet);
      expect(sheet).withContext(`${id}: ${place.sheet}`).toBeDefined();
      if (place.tab !== undefined)
        expect(sheet?.tabs.map(({ tab }) => tab))
          .withContext(`${id}: ${place.tab}`)
          .toContain(place.tab);
    }
  });

  it('each sheet has a key of its own', () => {
    const keys = [...sheets.values()].map(({ key }) => key);
    expect(new Set([...keys, 'bo']).size).toBe(keys.length + 1);
    for (const key of keys) expect(key).toMatch(/^[a-z]{2}$/);
  });

  it('what is bought for any of them has a name, a count and begins as needed', () => {
    const needed = neededParts(everyOperation());
    const listed = newParts(needed, 12, 'plate');
    expect(listed.length).toBe(needed.length);
    for (const { name, count, state } of listed) {
      expect(name).not.toBe('');
      expect(count).toBeGreaterThan(0);
      expect(state).toBe('needed');
    }
    expect(listed.find(({ id }) => id === 'ring-bolts')?.count).toBe(12);
    expect([PART_STATES.length, TOOL_STATES.length]).toEqual([3, 4]);
  });
});

describe('days as people write them', () => {
  it('year first, or day first; empty is none', () => {
    for (const [text, day] of [
      ['2026-12-24', '2026-12-24'],
      ['2026-2-3', '2026-02-03'],
      ['24.12.2026', '2026-12-24'],
      ['3/2/2027', '2027-02-03'],
      [' 2028-02-29 ', '2028-02-29'],
      ['', null],
    ] as const)
      expect(readDay(text).value).withContext(text).toBe(day);
  });

  it('what is no day is refused, not rolled over', () => {
    for (const text of [
      '2026-02-30',
      '31.4.2026',
      '2027-02-29',
      '24.12.26',
      'tomorrow',
      '2026-13-01',
      '2026-00-10',
      '1.1',
    ])
      expect(() => readDay(text))
        .withContext(text)
        .toThrowError(InputError, /is no day/);
  });
});
