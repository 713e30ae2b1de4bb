import { entryBase } from '@hot-spline/core';
import { readTorqueCsv, type TorqueAsks, type TorqueSaid } from './torque-csv';

/** An engine of ours, in no car: rpm and N·m. */
const CURVE: readonly (readonly [rpm: number, nm: number])[] = [
  [1500, 142],
  [2500, 168],
  [3500, 187],
  [4500, 196],
  [5500, 190],
  [6500, 171],
];
const LBF_FT = 1.355_817_948_331_4; // [standard: NIST SP 811]
const HP_W = 745.699_871_582; // 550 ft·lbf/s [exact]
const watt = (rpm: number, nm: number): number => (nm * rpm * Math.PI) / 30;
const lines = (write: (rpm: number, nm: number, i: number) => string): string =>
  CURVE.map(([rpm, nm], i) => write(rpm, nm, i)).join('\n');
const comma = (value: number, decimals: number): string => value.toFixed(decimals).replace('.', ',');

interface Layout {
  readonly name: string;
  readonly text: string;
  /** What is asked first; nothing where the file says everything. */
  readonly asks?: readonly TorqueAsks[];
  /** What then is said. */
  readonly said?: TorqueSaid;
  /** The engine's torque against what stands in the file. */
  readonly times?: number;
}

/** As dynamometers, spreadsheets and people write them; common practice, no published source. The figures are ours. */
const LAYOUTS: readonly Layout[] = [
  { name: 'comma, unit in round brackets', text: `rpm,torque (N·m)\n${lines((r, t) => `${r},${t}`)}` },
  { name: 'tab, names that are units', text: `RPM\tNm\n${lines((r, t) => `${r}\t${t}`)}` },
  {
    name: 'semicolon, decimal comma, other words',
    text: `Drehzahl [1/min];Moment [Nm]\n${lines((r, t) => `${r};${comma(t, 1)}`)}`,
  },
  {
    name: 'two columns apart by blanks, nothing named',
    text: lines((r, t) => `${r}   ${t}`),
    asks: ['unit'],
    said: { unit: 'N·m' },
  },
  {
    name: 'the weather and a date before the names',
    text: `Run 3\nDate, 2026-11-30\nTemp, 21, Humidity, 44\n\nEngine speed (rpm),Torque (Nm)\n${lines((r, t) => `${r},${t}`)}`,
  },
  {
    name: 'a preamble without what separates the cells',
    text: `Ours, cell 2\nBarometer 1003.2 hPa, 19.5 °C\nrpm;Torque [ft-lbs]\n${lines((r, t) => `${r};${(t / LBF_FT).toFixed(3)}`)}`,
  },
  { name: 'units on a line of their own', text: `Speed,Torque\nrpm,Nm\n${lines((r, t) => `${r},${t}`)}` },
  { name: 'a unit in every cell', text: lines((r, t) => `${r} rpm; ${t} Nm`) },
  { name: 'a unit in brackets in every cell', text: lines((r, t) => `${r} [rpm], ${t} [Nm]`) },
  {
    name: 'power alone, kilowatt',
    text: `Engine RPM,Power [kW]\n${lines((r, t) => `${r},${(watt(r, t) / 1000).toFixed(4)}`)}`,
  },
  {
    name: 'torque and power: torque it is',
    text: `rpm,Power (hp),Torque (lb-ft)\n${lines((r, t) => `${r},${(watt(r, t) / HP_W).toFixed(2)},${(t / LBF_FT).toFixed(3)}`)}`,
  },
  {
    name: 'time first, and more besides',
    text: `Time (s),RPM,AFR,Torque (Nm),Boost (bar)\n${lines((r, t, i) => `${i * 0.5},${r},12.6,${t},0.8`)}`,
  },
  { name: 'torque before engine speed', text: `Torque (Nm);RPM\n${lines((r, t) => `${t};${r}`)}` },
  {
    name: 'torque at the wheels: the loss is asked',
    text: `RPM,Wheel Torque (Nm)\n${lines((r, t) => `${r},${(t * 0.85).toFixed(3)}`)}`,
    asks: ['loss'],
    said: { lossPercent: 15 },
  },
  {
    name: 'power at the wheels: the loss is asked',
    text: `RPM,WHP (hp)\n${lines((r, t) => `${r},${((watt(r, t) * 0.8) / HP_W).toFixed(4)}`)}`,
    asks: ['loss'],
    said: { lossPercent: 20 },
  },
  {
    name: 'wheels and engine: the engine’s',
    text: `rpm;Wheel torque [Nm];Engine torque [Nm]\n${lines((r, t) => `${r};${t - 20};${t}`)}`,
  },
  {
    name: 'three columns without a name: which is asked',
    text: lines((r, t, i) => `${i + 1},${r},${t}`),
    asks: ['columns'],
    said: { rpmAt: 1, valueAt: 2, unit: 'N·m' },
  },
  {
    name: 'in quotes, thousands grouped',
    text: `"Engine speed, rpm","Torque, Nm"\n${lines((r, t) => `"${Math.floor(r / 1000)},${String(r % 1000).padStart(3, '0')}","${t}.0"`)}`,
  },
  { name: 'engine speed in thousands', text: `rpm x1000,Torque Nm\n${lines((r, t) => `${r / 1000},${t}`)}` },
  {
    name: 'from the top down',
    text: `rpm,Nm\n${[...CURVE]
      .reverse()
      .map(([r, t]) => `${r},${t}`)
      .join('\n')}`,
  },
  {
    name: 'engine speed in rad/s',
    text: `Engine speed (rad/s);Torque (Nm)\n${lines((r, t) => `${((r * Math.PI) / 30).toFixed(6)};${t}`)}`,
  },
  {
    name: 'a sum below the values',
    text: `rpm;Nm\n${lines((r, t) => `${r};${t}`)}\n\nMost torque;196 at 4500\nSigned:;`,
  },
  {
    name: 'a table drawn with bars',
    text: `| rpm | torque Nm |\n|---|---:|\n${lines((r, t) => `| ${r} | ${t} |`)}`,
  },
  {
    name: 'the line that tells a spreadsheet its sign',
    text: `sep=;\nrpm;Torque (Nm)\n${lines((r, t) => `${r};${t}`)}`,
  },
  {
    name: 'a number before each line',
    text: `No.;n [1/min];M [Nm];P [kW]\n${lines((r, t, i) => `${i + 1};${r};${comma(t, 2)};${comma(watt(r, t) / 1000, 1)}`)}`,
  },
  {
    name: 'two runs side by side: the first, and it is said',
    text: `RPM,Run 1 Torque (Nm),Run 2 Torque (Nm)\n${lines((r, t) => `${r},${t},${t + 4}`)}`,
  },
  {
    name: 'on its side',
    text: `rpm,${CURVE.map(([r]) => r).join(',')}\nTorque Nm,${CURVE.map(([, t]) => t).join(',')}`,
  },
  {
    name: 'three columns of which one is engine speed: the other is asked, never guessed',
    text: `rpm,a,b\n${lines((r, t, i) => `${r},${i},${t}`)}`,
    asks: ['columns'],
    said: { valueAt: 2, unit: 'N·m' },
  },
];

describe('a torque curve, however it is laid out', () => {
  it(`${LAYOUTS.length} layouts, 24 at least`, () => expect(LAYOUTS.length).toBeGreaterThanOrEqual(24));

  for (const { name, text, asks = [], said } of LAYOUTS)
    it(name, () => {
      const first = readTorqueCsv(text);
      expect(first.asks).toEqual(asks);
      const read = said ? readTorqueCsv(text, said) : first;
      expect(read.asks).toEqual([]);
      expect(read.points.map(({ rpm }) => Math.round(rpm))).toEqual(CURVE.map(([rpm]) => rpm));
      read.points.forEach(({ torque }, i) => {
        const nm = CURVE[i]?.[1] ?? Number.NaN;
        expect(Math.abs(entryBase(torque) / nm - 1))
          .withContext(`${torque.typed}`)
          .toBeLessThan(6e-4);
      });
    });

  it('what is asked and not said gives no curve that could be taken for one', () => {
    expect(readTorqueCsv('1,1500,142\n2,2500,168\n3,3500,187').points).toEqual([]);
    expect(readTorqueCsv('rpm,torque\n1500,142\n2500,168').asks).toEqual(['unit']);
    // of two bare columns the one that is larger throughout turns; where neither is, it is asked
    expect(readTorqueCsv('1500,1800\n2500,1700').asks).toEqual(['columns']);
  });

  it('what is said wins over what is called so, and a loss is no loss beyond what there is', () => {
    const text = 'rpm,Torque (Nm),b\n1500,142,150\n2500,168,180';
    expect(readTorqueCsv(text, { valueAt: 2, unit: 'lbf·ft' }).points[0]?.torque).toEqual(
      jasmine.objectContaining({ value: 150, unit: 'lbf·ft' }),
    );
    for (const lossPercent of [-1, 41, Number.NaN])
      expect(() => readTorqueCsv(text, { lossPercent })).toThrowMatching((e) => e.field === 'lossPercent');
  });

  it('a gap in a line ends no table: what stands above it is kept', () => {
    const text = 'rpm,AFR,Nm\n1000,13,100\n1500,13,120\n2000,,140\n2500,13,150\n3000,13,160\n3500,13,165\n4000,13,160';
    expect(readTorqueCsv(text).points.length).toBe(7);
  });
});
