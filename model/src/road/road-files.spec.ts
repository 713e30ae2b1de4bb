import { InputError, entryBase, entryOf, meanGrade } from '@hot-spline/core';
import { csvNumber, csvText, csvWhole, headerUnit } from '../base/csv';
import { encodingOf, textOf } from '../base/text';
import { readTorqueCsv, type TorqueSaid } from './torque-csv';
import { TraceReader, traceColumns } from './trace-csv';

const refusal = (run: () => unknown): InputError => {
  try {
    run();
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('it was taken');
};

describe('CSV cells', () => {
  it('are numbers however they are written', () => {
    for (const [text, value] of [
      ['1234.5', 1234.5],
      ['1.234,5', 1234.5],
      ['1,234.5', 1234.5],
      ['3 000', 3000],
      ["1'200", 1200],
      ['0,5', 0.5],
      ['-2e3', -2000],
    ] as const)
      expect(csvNumber(text)).withContext(text).toBe(value);
    for (const text of ['', 'NaN', 'Infinity', '1.2.3', '12 Nm', '--3', '0x10'])
      expect(csvNumber(text)).withContext(text).toBeNaN();
  });

  it('that are counted in ones may have their thousands grouped', () => {
    for (const [text, value] of [
      ['3,000', 3000],
      ['3.000', 3000],
      ['1,234,567', 1234567],
      ['2500', 2500],
      ['2500,5', 2500.5],
    ] as const)
      expect(csvWhole(text)).withContext(text).toBe(value);
    const read = readTorqueCsv('rpm,torque (N·m)\n"3,000",200\n"6,000",250');
    expect(read.points.map(({ rpm }) => rpm)).toEqual([3000, 6000]);
  });

  it('carry their unit in the header', () => {
    expect(headerUnit('Torque (lbf·ft)', 'torque')).toBe('lbf·ft');
    expect(headerUnit('speed_kmh', 'speed')).toBe('km/h');
    expect(headerUnit('v [m/s]', 'speed')).toBe('m/s');
    expect(headerUnit('power kW', 'power')).toBe('kW');
    expect(headerUnit('torque', 'torque')).toBeNull();
  });

  it('never come back as a formula', () => {
    expect(csvText(['name'], [['=1+1']])).not.toMatch(/\n=/);
  });
});

describe('a torque curve from CSV', () => {
  const base = (entry: Parameters<typeof entryBase>[0] | undefined): number => (entry ? entryBase(entry) : Number.NaN);

  it('reads header and units, comma or semicolon', () => {
    const inch = readTorqueCsv('rpm,torque (lbf·ft)\n2000,200\n4000,300\n6000,250');
    expect(inch.unit).toBe('lbf·ft');
    expect(inch.asks).toEqual([]);
    expect(base(inch.points[1]?.torque)).toBeCloseTo(300 * 1.3558179483, 6); // [standard: NIST SP 811]
    const metric = readTorqueCsv('Drehzahl 1/min;Moment Nm\n2000;200,5\n4000;300');
    expect(metric.unit).toBe('N·m');
    expect(base(metric.points[0]?.torque)).toBe(200.5);
  });

  it('turns power into torque, and says so', () => {
    const read = readTorqueCsv('rpm\tpower [kW]\n3000\t100\n6000\t180');
    expect(base(read.points[0]?.torque)).toBeCloseTo((60 * 100_000) / (2 * Math.PI * 3000), 2); // T = P/ω [exact]
    expect(read.notices.join()).toContain('kW is turned into torque');
  });

  it('asks where no unit is said; the answer counts', () => {
    expect(readTorqueCsv('2000,200\n4000,300').asks).toEqual(['unit']);
    const chosen = readTorqueCsv('2000,200\n4000,300', { unit: 'lbf·ft' });
    expect(base(chosen.points[0]?.torque)).toBeCloseTo(200 * 1.3558179483, 6);
  });

  it('lists bad rows by line and keeps the rest', () => {
    const read = readTorqueCsv(
      'rpm,Nm\n2000,200\nabc,3\n3000,\n4000,NaN\n4000,300\n4000,310\n-5,10\n5000,1e9\n6000,250\n\n',
    );
    expect(read.points.map(({ rpm }) => rpm)).toEqual([2000, 4000, 6000]);
    expect(read.bad.map(({ line }) => line)).toEqual([3, 4, 5, 7, 8, 9]);
    expect(read.bad.find(({ line }) => line === 7)?.why).toContain('line 6 already');
  });

  it('sorts descending rpm, names gaps, reads mixed units as they stand', () => {
    const down = readTorqueCsv('6000,250\n4000,300\n2000,200', { unit: 'N·m' });
    expect(down.points.map(({ rpm }) => rpm)).toEqual([2000, 4000, 6000]);
    expect(down.notices.join()).toContain('sorted');
    const gap = readTorqueCsv('1000,100\n1500,110\n2000,120\n2500,130\n6000,150', { unit: 'N·m' });
    expect(gap.notices.join()).toContain('Nothing between 2500 and 6000 rpm');
    const mixed = readTorqueCsv('rpm,torque\n2000,200 Nm\n4000,220 lbf·ft\n6000,250');
    expect(mixed.notices.join()).toContain('Units are mixed');
    expect(base(mixed.points[1]?.torque)).toBeCloseTo(220 * 1.3558179483, 6);
  });

  it('thins what is too long for a build, and refuses nonsense by name', () => {
    const long = Array.from({ length: 900 }, (_, i) => `${1000 + i * 7},${200 + i / 10}`).join('\n');
    const read = readTorqueCsv(long, { unit: 'N·m' });
    expect(read.points.length).toBe(100);
    expect(read.points.at(-1)?.rpm).toBe(1000 + 899 * 7);
    for (const text of ['', 'hello', 'rpm,torque\n', '2000,200'])
      expect(refusal(() => readTorqueCsv(text)).field).toBe('csv');
  });
});

describe('a speed trace', () => {
  /** A minute of a car that goes up and down between 40 and 140 km/h. */
  const speedAt = (t: number): number => 90 + 50 * Math.sin(t / 4);
  const feed = (rows: readonly (readonly string[])[], choice = {}) => {
    const reader = new TraceReader(choice);
    rows.forEach((row, i) => reader.push(row, i + 1));
    return reader.finish();
  };
  const timed = (step: number): string[][] => [
    ['Time [s]', 'Speed (km/h)'],
    ...Array.from({ length: Math.round(60 / step) }, (_, i) => [String(i * step), speedAt(i * step).toFixed(4)]),
  ];

  it('finds its columns and units in the header', () => {
    const named = (...names: string[]) => traceColumns(names.map((name) => ({ name, unit: '' })));
    expect(named('Time [s]', 'Speed (km/h)')).toEqual(
      jasmine.objectContaining({
        along: 'time',
        alongAt: 0,
        speedAt: 1,
        speedUnit: 'km/h',
        timeUnit: 's',
        recognised: true,
      }),
    );
    expect(named('speed mph', 'distance (ft)')).toEqual(
      jasmine.objectContaining({ along: 'distance', alongAt: 1, speedAt: 0, speedUnit: 'mph', distanceUnit: 'ft' }),
    );
    expect(named().recognised).toBeFalse();
  });

  // Headers as loggers write them; common practice, no published source.
  const HEADERS: readonly (readonly [
    string,
    readonly string[],
    along: 'time' | 'distance',
    alongAt: number,
    speedAt: number,
    known: boolean,
  ])[] = [
    ['altitude is no distance', ['Time (s)', 'Altitude (m)', 'Speed (km/h)'], 'time', 0, 2, true],
    ['accuracy is no distance', ['Time (s)', 'Accuracy (m)', 'Speed (m/s)'], 'time', 0, 2, true],
    ['latitude and longitude are none', ['Latitude', 'Longitude', 'Time [s]', 'Speed [mph]'], 'time', 2, 3, true],
    ['time goes before distance', ['Distance (m)', 'Time (s)', 'Speed (km/h)'], 'time', 1, 2, true],
    ['an engine’s speed is none of the car', ['Time (s)', 'Engine Speed (rpm)', 'Speed (km/h)'], 'time', 0, 2, true],
    ['rpm first', ['Time (s)', 'Engine RPM', 'Ground Speed [km/h]'], 'time', 0, 2, true],
    [
      'a wheel only where there is nothing better',
      ['Time (s)', 'Wheel Speed FL (km/h)', 'GPS Speed (km/h)'],
      'time',
      0,
      2,
      true,
    ],
    ['a throttle is no time', ['Throttle (%)', 'Dist (m)', 'v (m/s)'], 'distance', 1, 2, true],
    ['lap time is no time', ['Lap Time (s)', 'Elapsed Time (s)', 'Speed (kn)'], 'time', 1, 2, true],
    ['ride height is no distance', ['Ride Height FL (mm)', 'Lap Distance (m)', 'Speed (km/h)'], 'distance', 1, 2, true],
    ['speed accuracy is no speed', ['Time (s)', 'Speed Accuracy (m/s)', 'Speed (m/s)'], 'time', 0, 2, true],
    ['no units: to be confirmed', ['Time', 'Speed'], 'time', 0, 1, false],
    ['in other words', ['Zeit [s]', 'Geschwindigkeit [km/h]'], 'time', 0, 1, true],
  ];
  for (const [name, header, along, alongAt, speedAt, known] of HEADERS)
    it(`columns by name and by unit: ${name}`, () => {
      const found = traceColumns(header.map((one) => ({ name: one, unit: '' })));
      expect([found.along, found.alongAt, found.speedAt, found.recognised]).toEqual([along, alongAt, speedAt, known]);
    });

  it('an altitude makes the slopes of the course, in metres or feet; the speed itself is kept for the picture', () => {
    // 3 % up for 600 m, then 5 % down; 20 m/s throughout but for one corner
    const height = (x: number): number => (x < 600 ? 0.03 * x : 18 - 0.05 * (x - 600));
    const speed = (x: number): number => (Math.abs(x - 500) < 60 ? 12 + Math.abs(x - 500) / 7.5 : 20);
    for (const [unit, perMetre] of [
      ['m', 1],
      ['ft', 1 / 0.3048],
    ] as const) {
      const rows = [
        ['Distance (m)', 'Speed (m/s)', `GPS Altitude (${unit})`],
        ...Array.from({ length: 121 }, (_, i) => [
          String(10 * i),
          speed(10 * i).toFixed(3),
          (perMetre * (210 + height(10 * i))).toFixed(3),
        ]),
      ];
      const { course, log, notices } = feed(rows);
      expect(meanGrade(course.slopes ?? [], 100, 500)).toBeCloseTo(3, 1);
      expect(meanGrade(course.slopes ?? [], 700, 1100)).toBeCloseTo(-5, 1);
      expect(notices.join()).toContain('Slopes are from “GPS Altitude');
      expect(notices.join()).not.toContain('does not say');
      expect(log.samples[0]).toEqual({ atM: 0, speedMps: 20 });
      expect(log.samples.at(-1)?.atM).toBe(1200);
      expect(log.timeS).toBeGreaterThan(60);
    }
    expect(
      feed([
        ['Distance (m)', 'Speed (m/s)', 'Ride height (m)'],
        ...Array.from({ length: 30 }, (_, i) => [`${i * 10}`, `${20 + (i % 3)}`, '0.1']),
      ]).course.slopes,
    ).toBeUndefined();
  });

  it('an altitude without a unit, and one that jumps, are said', () => {
    const rows = (height: (i: number) => number) => [
      ['Distance (m)', 'Speed (m/s)', 'Altitude'],
      ...Array.from({ length: 60 }, (_, i) => [`${i * 10}`, `${20 + (i % 2)}`, String(height(i))]),
    ];
    expect(feed(rows((i) => 100 + i)).notices.join()).toContain('does not say');
    const jumps = feed(rows((i) => (i < 25 ? 100 : 400)));
    expect(jumps.notices.join()).toContain('steeper than 40 %');
    expect(Math.max(...(jumps.course.slopes ?? []).map(({ gradePercent }) => gradePercent))).toBe(40);
  });

  it('what stands before the names is skipped, and a line of units below them is read', () => {
    const rows = [
      ['Venue', 'Somewhere'],
      ['Date', '2026-11-26'],
      ['Sample rate', '10'],
      [],
      ['Time', 'Altitude', 'Speed'],
      ['ms', 'm', 'mph'],
      ...Array.from({ length: 100 }, (_, i) => [`${i * 100}`, '310', '60']),
    ];
    const read = feed(rows);
    expect([read.columns.timeUnit, read.columns.speedUnit, read.columns.recognised]).toEqual(['ms', 'mph', true]);
    expect(read.names).toEqual(['Time', 'Altitude', 'Speed']);
    expect(read.rows).toBe(100);
    // 60 mph for 9.9 s [exact]
    expect(read.course.lengthM).toBeCloseTo(60 * 0.44704 * 9.9, 6);
  });

  it('a time of day, a date with a time, and time since 1970 are seconds', () => {
    const at = (write: (s: number) => string) =>
      feed([['Time', 'Speed (m/s)'], ...Array.from({ length: 90 }, (_, i) => [write(i * 0.5), '20'])]);
    const clock = (s: number): string => `09:59:${(30 + s < 60 ? 30 + s : s - 30).toFixed(1).padStart(4, '0')}`;
    for (const write of [
      (s: number) => (s < 30 ? clock(s) : `10:00:${(s - 30).toFixed(1).padStart(4, '0')}`),
      (s: number) => new Date(Date.UTC(2026, 10, 26, 9, 0) + 1000 * s).toISOString(),
      (s: number) => String(1_795_000_000_000 + 1000 * s),
      (s: number) => String(1_795_000_000 + s),
    ]) {
      const read = at(write);
      expect(read.columns.recognised).toBeTrue();
      expect(read.badCount).toBe(0);
      expect(read.course.lengthM).toBeCloseTo(20 * 44.5, 3);
    }
  });

  it('says gaps', () => {
    const rows = timed(0.1);
    rows.splice(200, 60);
    expect(feed(rows).notices.join()).toMatch(/A gap of 6\.1 s before row 200/);
    expect(feed(timed(0.1)).notices.join()).not.toContain('gap');
  });

  it('a column that the builder points at counts', () => {
    const rows = [['a', 'b', 'c'], ...Array.from({ length: 50 }, (_, i) => ['72', '1', `${i * 0.1}`])];
    const read = feed(rows, { alongAt: 2, speedAt: 0 });
    expect(read.course.lengthM).toBeCloseTo(20 * 4.9, 6);
    expect(read.first[0]).toEqual(['72', '1', '0']);
  });

  it('comes to the same course at any sample rate', () => {
    const [fine, coarse] = [feed(timed(0.02)), feed(timed(0.1))];
    // ∫ v dt of 90 + 50·sin(t/4) km/h over 60 s [exact]
    const length = (90 * 60 + 50 * 4 * (1 - Math.cos(15))) / 3.6;
    expect(fine.course.lengthM / length).toBeCloseTo(1, 2);
    expect(coarse.course.lengthM / length).toBeCloseTo(1, 2);
    expect(fine.course.corners.length).toBe(coarse.course.corners.length);
    fine.course.corners.forEach((corner, i) =>
      expect(corner.speedMps / (coarse.course.corners[i]?.speedMps ?? 1)).toBeCloseTo(1, 1),
    );
  });

  it('lists bad rows and repeated times, and keeps the rest', () => {
    const rows = timed(0.1);
    rows.splice(20, 0, ['2', 'NaN'], ['oops', '90'], ['1.9', '80'], ['1.9', '80'], ['2.0', '-4']);
    const read = feed(rows);
    expect(read.badCount).toBeGreaterThanOrEqual(4);
    expect(read.bad.map(({ why }) => why).join()).toMatch(/speed is not a number.*time is not a number/);
    expect(read.bad.map(({ why }) => why).join()).toContain('time repeats');
    expect(read.notices.join()).toContain('bad rows left out');
  });

  it('a million rows are thinned with a notice, in bounded memory', () => {
    const reader = new TraceReader();
    reader.push(['t [s]', 'v [m/s]'], 1);
    for (let i = 0; i < 1_000_000; i++)
      reader.push([(i * 0.0001).toFixed(4), (speedAt(i * 0.0001) / 3.6).toFixed(3)], i + 2);
    const read = reader.finish();
    expect(read.rows).toBe(1_000_000);
    expect(read.samples.length).toBeLessThanOrEqual(12_000);
    expect(read.samples.length).toBeGreaterThan(4000);
    expect(read.notices.join()).toContain('1000000 rows thinned');
    expect(read.course.corners.length).toBeGreaterThan(2);
  });

  it('takes the units that the builder says', () => {
    const rows = timed(0.1).slice(1);
    const kmh = feed(rows);
    const mph = feed(rows, { speedUnit: 'mph' });
    expect(mph.course.lengthM / kmh.course.lengthM).toBeCloseTo(1.609344, 6); // [exact]
  });

  it('with both time and distance, takes the one that the builder chooses', () => {
    // 20 m/s all along: distance = 20 · time [exact]
    const header = ['Time [s]', 'Distance (m)', 'Speed (m/s)'];
    const rows = [header, ...Array.from({ length: 200 }, (_, i) => [`${i * 0.1}`, `${i * 2}`, '20'])];
    for (const along of ['time', 'distance'] as const) {
      const read = feed(rows, { along });
      expect([read.columns.along, read.columns.alongAt]).toEqual([along, along === 'time' ? 0 : 1]);
      expect(read.course.lengthM).withContext(along).toBeCloseTo(398, 6);
    }
    // time where nothing is said; read as a time of 2 s a row, the distance would come to twenty times the course
    expect(feed(rows).columns.along).toBe('time');
    expect(feed(rows).course.lengthM).toBeCloseTo(398, 6);
  });

  it('a distance that stands still or goes back is a bad row', () => {
    const rows = [['Distance (m)', 'Speed (km/h)'], ...Array.from({ length: 100 }, (_, i) => [`${i * 5}`, '72'])];
    rows.splice(50, 0, ['245', '72'], ['100', '72']);
    const read = feed(rows);
    expect(read.badCount).toBe(2);
    expect(read.bad.map(({ line }) => line)).toEqual([52, 53]);
    expect(read.course.lengthM).toBeCloseTo(495, 6);
  });

  it('refuses too little by name', () => {
    expect(refusal(() => feed([['a', 'b']])).field).toBe('trace');
    expect(refusal(() => feed([])).field).toBe('trace');
  });
});

describe('what is pasted, few lines or many', () => {
  const pointsOf = (text: string, said: TorqueSaid = {}): (readonly [number, number])[] =>
    readTorqueCsv(text, { unit: 'N·m', ...said }).points.map(({ rpm, torque }) => [rpm, torque.value] as const);
  const WANTED = [
    [1500, 210.5],
    [2500, 320],
    [4000, 305],
  ] as const;
  // The same three points as people paste them; common practice, no published source.
  const CASES: Readonly<Record<string, string>> = {
    'commas, points': '1500,210.5\n2500,320\n4000,305',
    'commas and blanks': '1500, 210.5\n2500, 320\n4000, 305',
    'tabs, points': '1500\t210.5\n2500\t320\n4000\t305\n',
    'tabs, decimal commas': '1500\t210,5\n2500\t320,0\n4000\t305,0',
    'semicolons, decimal commas': '1500;210,5\r\n2500;320,0\r\n4000;305,0\r\n',
    'thousands with points, tabs': '1.500\t210,5\n2.500\t320,0\n4.000\t305,0',
    'thousands with commas, semicolons': '1,500;210.5\n2,500;320.0\n4,000;305.0',
    'blanks, decimal commas': '1500 210,5\n2500 320,0\n4000 305,0',
    'many blanks': '1500    210.5\n2500    320\n4000    305',
    bars: '1500|210.5\n2500|320\n4000|305',
    'a header and tabs': 'rpm\ttorque (N·m)\n1500\t210.5\n2500\t320\n4000\t305',
    'a header and semicolons': 'n [1/min];M [Nm]\n1500;210,5\n2500;320\n4000;305\n\n',
    'units in the cells': '1500 rpm, 210.5 Nm\n2500 rpm, 320 Nm\n4000 rpm, 305 Nm',
    'a mark of the byte order': '\ufeff1500;210,5\n2500;320\n4000;305',
  };
  for (const [name, text] of Object.entries(CASES))
    it(`${name}: three points`, () => {
      expect(pointsOf(text)).toEqual(WANTED as unknown as (readonly [number, number])[]);
    });

  it('two lines are enough, and two thousand are not too many', () => {
    expect(pointsOf('1500\t210\n2500\t320').length).toBe(2);
    const many = Array.from({ length: 2000 }, (_, i) => `${1000 + 3 * i};${200 + (i % 50)},5`).join('\n');
    expect(readTorqueCsv(many).points.length).toBe(100);
  });

  it('engine speed in thousands or in rad/s, torque in kgf·m, power in W, units in a second line', () => {
    expect(pointsOf('rpm x 1000,torque (Nm)\n1.5,210.5\n2.5,320\n4,305')).toEqual(
      WANTED as unknown as (readonly [number, number])[],
    );
    expect(pointsOf('1.5;210,5\n2.5;320\n4;305')).toEqual(WANTED as unknown as (readonly [number, number])[]);
    const rad = readTorqueCsv('Engine speed [rad/s],Torque [Nm]\n100,200\n200,300');
    // 30/π [exact]
    expect(rad.points.map(({ rpm }) => rpm)).toEqual([954.9, 1909.9]);
    const kgm = readTorqueCsv('rpm,torque (kgm)\n2000,20\n4000,30');
    expect(kgm.unit).toBe('kgf·m');
    expect(entryBase(kgm.points[0]?.torque ?? entryOf(0, 'N·m'))).toBeCloseTo(196.133, 6); // [standard: g_n 9.80665]
    const watts = readTorqueCsv('rpm,power (W)\n3000,100000\n6000,180000');
    expect(watts.points[0]?.torque.value).toBeCloseTo(318.31, 2); // T = P/ω [exact]
    const second = readTorqueCsv('Engine;Torque\nrpm;lbf·ft\n2000;200\n4000;300');
    expect([second.unit, second.asks]).toEqual(['lbf·ft', []]);
  });

  it('a bad line before the first good one is listed too', () => {
    const read = readTorqueCsv('rpm,Nm\nabc,3\n2000,200\n4000,300');
    expect(read.points.length).toBe(2);
    expect(read.bad.map(({ line }) => line)).toEqual([2]);
  });

  it('the car’s speed beside the engine’s is no engine speed; what stands before is skipped', () => {
    const read = readTorqueCsv(
      'Run 3\nCorrection, none\nSpeed (km/h),Engine RPM,Torque (Nm)\n40,1500,210\n67,2500,320',
    );
    expect(read.points.map(({ rpm, torque }) => [rpm, torque.value])).toEqual([
      [1500, 210],
      [2500, 320],
    ]);
  });

  it('columns the other way round are swapped where one says so', () => {
    const wrong = '210.5;1500\n320;2500\n305;4000';
    expect(pointsOf(wrong, { rpmAt: 1, valueAt: 0 })).toEqual(WANTED as unknown as (readonly [number, number])[]);
  });
});

describe('what a file is written in', () => {
  const text = 'Vitesse (km/h);Durée µ\n1;2';
  const units = (little: boolean): Uint8Array => {
    const bytes = new Uint8Array(2 * text.length);
    [...text].forEach((letter, i) => new DataView(bytes.buffer).setUint16(2 * i, letter.charCodeAt(0), little));
    return bytes;
  };
  it('UTF-8, UTF-16 either way round with or without its mark, or a western code page', () => {
    expect(textOf(new TextEncoder().encode(text))).toBe(text);
    for (const little of [true, false]) {
      expect(textOf(units(little))).toBe(text);
      const mark = little ? [0xff, 0xfe] : [0xfe, 0xff];
      expect(textOf(new Uint8Array([...mark, ...units(little)]))).toBe(text);
    }
    const western = new Uint8Array([...text].map((letter) => letter.charCodeAt(0)));
    expect(encodingOf(western)).toBe('windows-1252');
    expect(textOf(western)).toBe(text);
  });
});
