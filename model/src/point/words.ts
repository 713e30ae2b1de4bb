import { formatUnit, say, type UnitSystem } from '@hot-spline/core';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;

export const limit = (f: { rpm: N; limit: N }): Words => ({
  title: `Operating point ${Math.round(f.rpm.value - f.limit.value)} rpm past the limiter`,
  detail: `${Math.round(f.rpm.value)} against ${Math.round(f.limit.value)} rpm: move the cursor or take a taller gear.`,
});

export function coupling(f: { capacity: N; most: N; guard: N }, system: UnitSystem): Words {
  const margin = f.capacity.value / f.most.value;
  return {
    title: margin < 1 ? 'Clutch slips at full torque' : `Clutch holds ×${formatUnit(margin, '', 2)}`,
    detail: `${say(f.capacity.value, 'torque', system, 0)} against ${say(f.most.value, 'torque', system, 0)} from the engine${margin < f.guard.value ? `: below our ${f.guard.value}` : ''}.`,
  };
}
