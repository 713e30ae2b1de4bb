import { ORIGIN_WORDS } from '../library/origins';
import { bottoming, entryBase, heatToFit, type BoltClamp } from '@hot-spline/core';
import { AXLES, type AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { defineCapability } from '../frame/capability';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { gearing } from '../gearing';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { isWeak } from '../library/sheet';
import { ringTorque } from '../road/ring-torque';
import { explainBolt, explainBottoming, explainCapacity, explainClamp, explainHeat, explainTorque } from './explain';
import { jointFigures } from './ids';
import { jointSubjects } from './readings';
import { bottomingInput, heatInput, jointBolts, jointSlip, jointState, type JointState } from './state';
import { jointParts, jointSteps } from './steps';
import * as words from './words';
import { jointWork } from './work';

/** Above it, high-speed steel cutters break on the case; a guard of ours. */
const HARD_CASE_HRC = 45;

export type JointStates = Partial<Record<AxleName, JointState>>;

const place = (axle: AxleName, field: string, tab = 'bolts') => ({
  sheet: 'joint',
  tab,
  axle,
  field: `${field}-${axle}`,
});

/** The bolted joint of the ring: clamp, what it holds, whether the bolts bottom, how warm the ring goes on. */
export const joint = defineCapability({
  name: 'joint',
  needs: [gearing],
  figures: jointFigures,
  subjects: jointSubjects,
  work: { steps: jointSteps, parts: jointParts },
  place: { sheet: 'joint', field: 'joint-grade' },
  station: 'final',
  inputs: ({ build, readings }) => ({ build, readings }),
  derive: ({ build, readings }, d, given): JointStates => {
    const states: JointStates = {};
    for (const name of AXLES) {
      const axle = build.axles[name];
      const state = axle && jointState(name, axle, readings);
      if (!state) continue;
      states[name] = state;
      d.attempt(place(name, 'joint-grade'), 'final', () => bolted(state, build, given.of(gearing)?.[name] ?? null, d));
      d.attempt(place(name, 'fit-diameter', 'heat'), 'final', () => warm(state, d));
    }
    return states;
  },
  knows: (name, states, { readings }) => jointWork(name, states[name] ?? null, readings),
});

function bolted(state: JointState, build: Build, own: AxleGearingState | null, d: Derivation): void {
  const { axle, joint: of, bolts, used } = state;
  const common = { station: 'final' as const };
  const missing = [...(bolts ? [] : ['thread and count']), ...(of.grade === '' ? ['class or grade'] : [])];
  if (missing.length > 0)
    d.finding({
      ...common,
      id: `joint.${axle}.unsaid`,
      verdict: bolts ? 'not-yet' : 'stop',
      place: place(axle, bolts ? 'joint-grade' : 'ring-bolt-thread'),
      figures: [],
      rule: 'an unknown thread is a stop (common practice)',
      facts: { axle, missing: missing.join(', ') },
      say: words.unsaid,
    });
  const known = jointBolts(state);
  if (!known || !bolts) return;
  const { load, nutFactor, clamp, clampInput, full } = known;
  const input = { thread: bolts.thread, grade: of.grade, nutFactor };
  d.figure({
    id: jointFigures.short(axle),
    label: 'Torque by K·d·F',
    value: load.torqueNm,
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
    explain: () => explainBolt(input),
  });
  if (full) {
    d.figure({
      id: jointFigures.full(axle),
      label: 'Torque, thread and head apart',
      value: full.torque.torqueNm,
      quantity: 'torque',
      scale: 'bolt',
      decimals: 0,
      explain: () => explainTorque(full.input),
    });
    d.figure({
      id: jointFigures.loosen(axle),
      label: 'To undo it, without threadlocker',
      value: full.torque.loosenNm,
      quantity: 'torque',
      scale: 'bolt',
      decimals: 0,
    });
  }
  if (used) {
    const weak = isWeak(used.origin);
    const percent = 100 * clamp.ofProof;
    d.figure({
      id: jointFigures.ofProof(axle),
      label: 'Clamp, of proof',
      value: percent,
      quantity: 'percent',
      decimals: 0,
      rests: ORIGIN_RESTS[used.origin],
      explain: () => explainClamp(clampInput),
    });
    d.finding({
      ...common,
      id: `joint.${axle}.torque`,
      verdict: clamp.verdict === 'stop' ? 'stop' : clamp.verdict === 'watch' || percent < 45 || weak ? 'watch' : 'fits',
      place: place(axle, 'joint-torque'),
      figures: [jointFigures.ofProof(axle), full ? jointFigures.full(axle) : jointFigures.short(axle)],
      rule: 'three quarters of proof for a joint that is undone again [std: Shigley]; friction scatters by a quarter (ours), judged at its low end; a torque borrowed from another car is an unknown clamp (common practice)',
      facts: {
        axle,
        used: fact(used.nm, 'torque', 'bolt'),
        origin: ORIGIN_WORDS[used.origin],
        share: fact(percent, 'percent'),
        low: fact(100 * clamp.low.ofProof, 'percent'),
        high: fact(100 * clamp.high.ofProof, 'percent'),
        wanted: fact(clamp.wantedNm, 'torque', 'bolt'),
        verdict: clamp.verdict,
        by: clamp.by,
        weak,
      },
      say: words.torque,
    });
  }
  if (of.grade === '12.9')
    d.finding({
      ...common,
      id: `joint.${axle}.brittle`,
      verdict: 'watch',
      place: place(axle, 'joint-grade'),
      figures: [],
      rule: 'the brittle class breaks and leaves stubs; plating makes high-strength bolts crack (common practice)',
      facts: { axle, grade: of.grade, plated: of.finish === 'plated' },
      say: words.brittle,
    });
  if (of.tabs)
    d.finding({
      ...common,
      id: `joint.${axle}.tabs`,
      verdict: of.caseHardness === null ? 'not-yet' : of.caseHardness > HARD_CASE_HRC ? 'watch' : 'fits',
      place: place(axle, 'joint-hardness'),
      figures: [],
      rule: 'a hardened case takes no cutter; above 45 HRC: a guard of ours',
      facts: {
        axle,
        hardness: of.caseHardness === null ? '' : String(of.caseHardness),
        hard: (of.caseHardness ?? 0) > HARD_CASE_HRC,
      },
      say: words.tabs,
    });
  bottomed(state, d);
  if (own) held(state, clamp, build, own, d);
  drawn(state, d);
}

function bottomed(state: JointState, d: Derivation): void {
  const { axle } = state;
  const input = bottomingInput(state);
  if (!input) return;
  const result = bottoming(input);
  d.figure({
    id: jointFigures.clearance(axle),
    label: 'Bolt to the ground of its hole',
    value: result.clearanceMm,
    quantity: 'length',
    scale: 'plate',
    explain: () => explainBottoming(input),
  });
  d.figure({
    id: jointFigures.engagement(axle),
    label: 'Thread that holds',
    value: result.engagementMm,
    quantity: 'length',
    scale: 'plate',
  });
  d.finding({
    id: `joint.${axle}.bottom`,
    verdict: result.verdict,
    place: place(axle, 'joint-under-head'),
    station: 'final',
    figures: [jointFigures.clearance(axle), jointFigures.engagement(axle)],
    rule: 'clearance = min(hole, full thread) + flange + washer − length under the head [exact]; one diameter of thread in steel (common practice)',
    facts: {
      axle,
      why: result.why.join(' '),
      clearance: fact(result.clearanceMm, 'length', 'plate'),
      engagement: fact(result.engagementMm, 'length', 'plate'),
    },
    say: words.bottom,
  });
}

function held(state: JointState, clamp: BoltClamp, build: Build, own: AxleGearingState, all: Derivation): void {
  const { axle, joint: of, bolts } = state;
  const d = all.using(['engine', 'gearbox', 'road', `axles.${axle}.tyre`, `axles.${axle}.finalDrive`]);
  const arrivesNm = ringTorque(build, axle, own);
  const slip = jointSlip(state, clamp.clampN, arrivesNm);
  // Slip is judged where friction is high: there the bolts clamp least.
  const least = jointSlip(state, clamp.low.clampN, arrivesNm);
  if (!slip || !least || !bolts || !of.boltCircle) return;
  const input = {
    bolts: bolts.count,
    preloadN: clamp.clampN,
    friction: entryBase(of.faceFriction),
    boltCircleMm: entryBase(of.boltCircle),
    ringTorqueNm: arrivesNm,
  };
  d.figure({
    id: jointFigures.arrives(axle),
    label: 'Most torque at the ring, with shock',
    value: arrivesNm,
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
  });
  all.figure({
    id: jointFigures.slip(axle),
    label: 'Holds before it slips',
    value: slip.slipTorqueNm,
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
    explain: () => explainCapacity(input),
  });
  if (slip.margin === null || least.margin === null) return;
  d.figure({ id: jointFigures.margin(axle), label: 'Margin', value: slip.margin, quantity: 'ratio', decimals: 2 });
  d.finding({
    id: `joint.${axle}.slip`,
    verdict: least.verdict,
    place: place(axle, 'joint-circle'),
    station: 'final',
    figures: [jointFigures.slip(axle), jointFigures.arrives(axle), jointFigures.margin(axle)],
    rule: 'friction joint: n·F·μ·r against what arrives; below 1 stop, below 1.5 watch (common practice, from memory), judged where the friction of the bolts is at its high end: a quarter more, ours',
    facts: {
      axle,
      slip: fact(slip.slipTorqueNm, 'torque', 'bolt'),
      arrives: fact(arrivesNm, 'torque', 'bolt'),
      margin: fact(slip.margin, 'ratio'),
      least: fact(least.margin, 'ratio'),
      bolts: fact(bolts.count, 'count'),
      verdict: least.verdict,
    },
    say: words.slip,
  });
}

function drawn(state: JointState, d: Derivation): void {
  const { axle, rounds, openSince } = state;
  const missing = rounds.filter(({ whole }) => !whole).map(({ label }) => label.toLowerCase());
  if (missing.length === rounds.length && openSince === null) return;
  d.finding({
    id: `joint.${axle}.drawn`,
    verdict: openSince !== null && missing.length > 0 ? 'stop' : missing.length > 0 ? 'not-yet' : 'fits',
    place: place(axle, 'star', 'torque'),
    station: 'final',
    figures: [],
    rule: 'every bolt twice, then a witness mark; started means finished (common practice)',
    facts: { axle, missing: missing.join(', '), open: openSince !== null && missing.length > 0 },
    say: words.drawn,
  });
}

function warm(state: JointState, d: Derivation): void {
  const { axle, joint: of } = state;
  const input = heatInput(of);
  if (!input) return;
  const result = heatToFit(input);
  d.figure({
    id: jointFigures.heat(axle),
    label: 'Ring slides on at',
    value: result.targetC,
    quantity: 'temperature',
    decimals: 0,
    explain: () => explainHeat(input),
  });
  d.finding({
    id: `joint.${axle}.heat`,
    verdict: result.verdict,
    place: place(axle, 'fit-diameter', 'heat'),
    station: 'final',
    figures: [jointFigures.heat(axle)],
    rule: 'ΔT = (interference + slide clearance)/(α·D) [exact]; watch from 150 °C, stop at the sheet’s limit or 190 °C: ours',
    facts: { axle, target: fact(result.targetC, 'temperature'), verdict: result.verdict },
    say: words.heat,
  });
}
