import type { Change, Reason } from '@hot-spline/core';
import { changeWords, reasonWords, scoreWords } from './find-words';

/** Without the thin blanks between thousands. */
const plain = (text: string): string => text.replace(/[\u00a0\u202f](?=\d)/g, '').replace(/[\u00a0\u202f]/g, ' ');

/** Every reason as a builder reads it, with its numbers. */
const reasons: [Reason['code'], number, number, string][] = [
  ['goal-best', 12.3456, 0, 'quickest of all: 12.346 s'],
  ['goal-behind', 0.1234, 0, '0.123 s behind the quickest'],
  ['window-met', 6500, 0, '6500 rpm: inside the window'],
  ['window-below', 5800, 6000, '5800 rpm: 200 rpm below the window'],
  ['window-above', 7300, 7000, '7300 rpm: 300 rpm above the window'],
  ['crawl-met', 62.13, 60, 'crawl ratio 62.1: the brief wants 60.0'],
  ['crawl-short', 51.5, 60, 'crawl ratio 51.5: 8.5 short'],
  ['stall-near', 300, 500, 'cruise only 300 rpm above converter stall, wants 500 rpm: runs warm'],
  ['stall-near', -150, 500, 'cruise 150 rpm below converter stall: it slips and runs hot'],
  ['stall-clear', 640, 500, 'cruise 640 rpm above converter stall'],
  ['cruise-limiter', 7600, 7400, 'cruise needs 7600 rpm, the limiter is at 7400 rpm'],
  ['finish-limiter', 0.456, 0, '0.46 s on the limiter before the finish'],
  ['hunts', 1, 0, 'hunting tooth count'],
  ['does-not-hunt', 4, 0, 'teeth share the divisor 4'],
  ['carrier-none', 0, 0, 'no known carrier takes it'],
  ['extra-shift', 1, 0, 'one shift more than now'],
  ['extra-shift', 2, 0, '2 shifts more than now'],
  ['fewer-shifts', 1, 0, 'one shift fewer than now'],
  ['fewer-shifts', 3, 0, '3 shifts fewer than now'],
];

describe('the words of the ratio finder', () => {
  for (const [code, value, limit, words] of reasons) {
    it(`${code} ${value}: ${words}`, () => {
      expect(plain(reasonWords({ code, value, limit, side: 'for' } as Reason, 'metric'))).toBe(words);
    });
  }

  it('says torque in the builder’s units', () => {
    const over = { code: 'torque-over', value: 4000, limit: 3200, side: 'against' } as Reason;
    expect(plain(reasonWords(over, 'metric'))).toBe('4000 N·m at the ring gear, the set stands 3200 N·m');
    // 1 lbf·ft = 1.3558179483 N·m [exact]
    expect(plain(reasonWords(over, 'inch'))).toBe('2950 lbf·ft at the ring gear, the set stands 2360 lbf·ft');
  });

  it('says what has to change with a ratio', () => {
    const changes: [Change, string][] = [
      [{ code: 'carrier', name: '4 series' }, 'carrier: 4 series'],
      [{ code: 'speed-reading', factor: 0.9174 }, 'speed reading × 0.917'],
      [{ code: 'tyre', factor: 1.05 }, 'a tyre 5.0 % larger would keep today’s rpm'],
      [{ code: 'tyre', factor: 0.92 }, 'a tyre 8.0 % smaller would keep today’s rpm'],
      [{ code: 'timing-marks', divisor: 2 }, 'align the timing marks'],
    ];
    for (const [change, words] of changes) expect(changeWords(change)).toBe(words);
  });

  it('says a score in the unit of its goal', () => {
    expect(scoreWords('time', 12.3456)).toBe('12.346 s');
    expect([scoreWords('finish', 0), scoreWords('finish', 212.6)]).toEqual(['in window', '213 rpm off']);
    expect([scoreWords('cruise', 0), scoreWords('cruise', 80)]).toEqual(['in window', '80 rpm off']);
    expect([scoreWords('crawl', 0), scoreWords('crawl', 0.125)]).toEqual(['met', '12.5 % short']);
  });
});
