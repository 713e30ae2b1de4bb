import { samePattern } from './tool-pattern';

describe('the pattern of a tool', () => {
  it('is the same in other words for numbers, in any order, with or without plural and space', () => {
    for (const [ours, sheet] of [
      ['two pins, 5 mm', '2 pins 5mm'],
      ['5 MM two pin', 'two pins, 5 mm'],
      ['12 slots', 'twelve slots'],
      ['4,5 mm pins', '4.5 mm pin'],
    ] as const)
      expect(samePattern(ours, sheet)).withContext(`${ours} · ${sheet}`).toBeTrue();
  });

  it('is another one where a number or a word differs; not known where one is not said', () => {
    for (const [ours, sheet] of [
      ['two pins, 4 mm', 'two pins, 5 mm'],
      ['two slots, 5 mm', 'two pins, 5 mm'],
      ['two pins', 'two pins, 5 mm'],
    ] as const)
      expect(samePattern(ours, sheet)).withContext(`${ours} · ${sheet}`).toBeFalse();
    for (const [ours, sheet] of [
      ['', 'two pins'],
      ['two pins', ''],
      ['–', 'two pins'],
    ] as const)
      expect(samePattern(ours, sheet)).toBeNull();
  });
});
