import { say } from '@hot-spline/core';
import { usedTorque } from '@hot-spline/model';
import { saidAt } from '../papers/blocks';
import { inSystems, type PaperLines } from '../shared/paper';

export const paper: PaperLines = {
  explains: [/^joint\.\w+\.short$/, /^joint\.\w+\.slip$/, /^joint\.\w+\.clearance$/],
  reads({ build, derived, systems }, name) {
    const axle = build.axles[name];
    const used = axle && usedTorque(axle);
    if (!used) return [];
    const marked = derived.joint[name]?.rounds.find(({ stage }) => stage === 'marks')?.whole ?? false;
    return [
      {
        what: 'Ring bolts',
        read: inSystems(used.nm, 'torque', systems, 0, 'bolt'),
        band: marked ? 'marked bolt by bolt' : 'not ticked as marked',
      },
    ];
  },
  label(input, name) {
    const axle = input.build.axles[name];
    if (!axle) return {};
    const hand = axle.identity?.ringBolts?.value.hand ?? saidAt(input, name)('ring-off', 'hand');
    const used = usedTorque(axle);
    return {
      ...(hand ? { thread: `ring bolts ${hand.toUpperCase()}-hand thread` } : {}),
      ...(used ? { bolts: `ring bolts ${say(used.nm, 'torque', input.systems[0] ?? 'metric', 0, 'bolt')}` } : {}),
    };
  },
};
