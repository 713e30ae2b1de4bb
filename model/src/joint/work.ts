import type { AxleName } from '../base/names';
import { lastOf, type Readings } from '../frame/readings';
import type { StepIdOf } from '../frame/capability';
import type { AxleWork, GateContext, GateNeed } from '../frame/work';
import { ringBolts } from './readings';
import type { JointState } from './state';
import type { jointSteps } from './steps';

type JointStep = StepIdOf<{ readonly steps: typeof jointSteps }>;

/** What the ring joint knows of the work on an axle: every round of its bolts. */
export function jointWork(axle: AxleName, joint: JointState | null, readings: Readings): AxleWork<JointStep> {
  const rounds = joint?.rounds ?? [];
  const open = rounds.filter(({ whole }) => !whole).map(({ label }) => label.toLowerCase());
  const whole = rounds.length > 0 && open.length === 0;
  return {
    steps: {
      'ring-bolts': {
        missing: () => (joint === null ? 'bolts not ticked on Ring joint' : open.length > 0 ? open.join(', ') : null),
        proof: () => lastOf(readings, axle, [ringBolts.what]),
      },
    },
    needs: {
      B: ({ asks }: GateContext): readonly GateNeed[] =>
        asks.B.includes('ring-bolts')
          ? [
              {
                of: 'ring-bolts',
                need: 'Ring bolts: every round ticked',
                met: whole,
                says: whole ? 'every round' : 'not all on Ring joint',
              },
            ]
          : [],
    },
  };
}
