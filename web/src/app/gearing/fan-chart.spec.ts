import { axleGearingState, speedFan } from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { chartColours } from '../shared/chart';
import { fanOption, fastestOf, roundScale, speedUnit, type FanPicture } from './fan-chart';

function picture(change: Partial<FanPicture> = {}): FanPicture {
  const build = plateBuild();
  if (!build.axles.rear) throw new Error('no axle');
  const own = axleGearingState('rear', build.axles.rear);
  return {
    finals: [
      { label: '41/10', present: true, gears: speedFan(build, own, 0) },
      { label: '37/10', present: false, gears: speedFan(build, own, 0, 3.7) },
    ],
    limitRpm: 6800,
    stallRpm: null,
    cruiseMps: 27,
    point: { mps: 20, rpm: 4000 },
    system: 'metric',
    colours: chartColours(),
    reachMps: 0,
    narrow: false,
    ...change,
  };
}

interface Drawn {
  id: string;
  data: number[][];
  lineStyle?: { type?: unknown };
}
const series = (p: FanPicture): Drawn[] => (fanOption(p) as unknown as { series: Drawn[] }).series;

describe('the speed fan', () => {
  it('ends its axes on a round step past the value', () => {
    for (const value of [0.7, 59.1, 161.6, 5616, 7696, 10608, 15080]) {
      const { max, interval } = roundScale(value);
      expect(max).toBeGreaterThanOrEqual(value);
      expect(max - value).toBeLessThan(interval);
      expect(max / interval).toBeCloseTo(Math.round(max / interval), 9);
      expect(max / interval).toBeLessThanOrEqual(7);
      expect(max / interval).toBeGreaterThanOrEqual(3);
    }
  });

  it('draws a line a gear and final, from standstill to the limiter', () => {
    const [present, other, ...rest] = series(picture()).filter((s) => s.id.startsWith('fan-'));
    expect(rest).toEqual([]);
    expect(present?.data.filter(([x, y]) => x === 0 && y === 0).length).toBe(5);
    expect(present?.data.filter(([, y]) => y === 6800).length).toBe(5);
    // at one rpm, speed goes with the inverse of the final drive [exact]
    expect((other?.data[13]?.[0] ?? 0) / (present?.data[13]?.[0] ?? 1)).toBeCloseTo(4.1 / 3.7, 9);
    expect(other?.lineStyle?.type).not.toEqual(present?.lineStyle?.type);
  });

  it('drops the revs at each shift of the present final only', () => {
    const drops = series(picture()).filter((s) => s.id === 'drops');
    expect(drops.length).toBe(1);
    // 6800 · 2/3.3 after first [exact]
    expect(drops[0]?.data[1]?.[1]).toBeCloseTo((6800 * 2) / 3.3, 9);
  });

  it('reaches as far as it is told, so that the axis can stand still while something is dragged', () => {
    const end = (reachMps: number): number =>
      (fanOption(picture({ reachMps })) as unknown as { xAxis: { max: number } }).xAxis.max;
    const fastest = fastestOf(picture().finals);
    expect(end(0)).toBe(end(fastest));
    expect(end(0)).toBe(roundScale((1.02 * fastest) / speedUnit('metric')).max);
    expect(end(2 * fastest)).toBe(roundScale((2.04 * fastest) / speedUnit('metric')).max);
  });

  it('puts the cursor at the operating point in the unit of the axis', () => {
    const cursor = series(picture({ system: 'inch' })).find((s) => s.id === 'cursor');
    expect(cursor?.data[0]).toEqual([20 / speedUnit('inch'), 4000]);
  });
});
