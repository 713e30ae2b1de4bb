import { say, saySmall, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;
const nm = (fact: N, system: UnitSystem): string => say(fact.value, 'torque', system, 0, 'bolt');

export const unsaid = (f: { axle: string; missing: string }): Words => ({
  title: `${capital(f.axle)}: nobody has said what the ring bolts are`,
  detail: `Still to say: ${f.missing}. An unknown thread is a stop: a wrong pitch ruins bolt and hole.`,
});

export const tabs = (f: { axle: string; hardness: string; hard: boolean }): Words => ({
  title:
    f.hardness === ''
      ? `${capital(f.axle)}: nobody has noted how hard the case is`
      : `${capital(f.axle)}: tabs on a case of ${f.hardness} HRC`,
  detail: f.hard
    ? 'So hard a case is harder than most cutters: carbide, or another lock.'
    : f.hardness === ''
      ? 'A case-hardened flange takes no cutter: a hardness tester or a file says it before the first cut.'
      : 'It can be cut.',
});

export function torque(
  f: {
    axle: string;
    used: N;
    origin: string;
    share: N;
    low: N;
    high: N;
    wanted: N;
    verdict: string;
    by: string;
    weak: boolean;
  },
  system: UnitSystem,
): Words {
  const share = Math.round(f.share.value);
  return {
    title: `${capital(f.axle)} ring bolts at ${nm(f.used, system)}: ${share} % of proof`,
    detail: `Three quarters of proof is ${nm(f.wanted, system)} ${
      f.by === 'thread-and-head' ? 'by friction of thread and head' : 'by the nut factor'
    }; friction scatters it from ${Math.round(f.low.value)} to ${Math.round(f.high.value)} %. ${
      f.verdict === 'stop'
        ? 'That stretches them.'
        : f.verdict === 'watch'
          ? 'Where friction is low they stretch.'
          : share < 45
            ? 'Less than half: they hold by less than they could.'
            : ''
    } ${f.weak ? `The torque is ${f.origin}: read it from a sheet before the threadlocker is opened.` : ''}`
      .replace(/\s+/g, ' ')
      .trim(),
  };
}

export const slip = (
  f: { axle: string; slip: N; arrives: N; margin: N; least: N; bolts: N; verdict: string },
  system: UnitSystem,
): Words => ({
  title: `${capital(f.axle)} ring joint holds ${f.margin.value.toFixed(2)} × what can arrive`,
  detail: `${f.least.value.toFixed(2)} × where the friction of the bolts is high. ${nm(f.slip, system)} before it slips, ${nm(f.arrives, system)} at most with shock.${
    f.verdict === 'fits'
      ? ''
      : ' More clamp, a larger bolt or class, more bolts, or faces stoned flat and dry raise it.'
  }`,
});

const WHY: Readonly<Record<string, string>> = {
  bottoms: 'it bottoms before it clamps: full reading, no clamp',
  shank: 'its shank seizes at the first thread: the same false torque',
  short: 'less than one diameter of thread holds',
  close: 'less than 0.5 mm left: measure again',
};
export const bottom = (f: { axle: string; why: string; clearance: N; engagement: N }, system: UnitSystem): Words => ({
  title:
    f.why === ''
      ? `${capital(f.axle)} ring bolts clamp`
      : `${capital(f.axle)} ring bolts: ${f.why
          .split(' ')
          .map((one) => WHY[one] ?? one)
          .join('; ')}`,
  detail: `${saySmall(f.clearance.value, system)} to the ground of the hole, ${say(f.engagement.value, 'length', system)} of thread holds.`,
});

export const heat = (f: { axle: string; target: N; verdict: string }, system: UnitSystem): Words => ({
  title: `${capital(f.axle)} ring slides on at ${say(f.target.value, 'temperature', system, 0)}`,
  detail:
    f.verdict === 'fits'
      ? 'Below what tempers it. Let it cool all through before the final torque.'
      : 'That is where hardened parts temper: cool the carrier instead, or look at the fit.',
});

export const brittle = (f: { axle: string; grade: string; plated: boolean }): Words => ({
  title: `${capital(f.axle)} ring bolts of ${f.grade}${f.plated ? ', plated' : ''}: brittle`,
  detail: `Harder is not better: they break and leave stubs.${f.plated ? ' Plating can crack them from hydrogen.' : ''}`,
});

export const drawn = (f: { axle: string; missing: string; open: boolean }): Words =>
  f.open
    ? {
        title: `${capital(f.axle)}: threadlocker is open and the joint is not finished`,
        detail: `Still to do: ${f.missing}. Stopped half way it sets under a half-tight joint: clean it all and begin again.`,
      }
    : f.missing === ''
      ? { title: `${capital(f.axle)} ring bolts drawn up, every one twice, and marked`, detail: '' }
      : { title: `${capital(f.axle)} ring bolts not drawn up yet`, detail: `Still to do: ${f.missing}.` };
