import { originOf } from '../library/origins';
import { entryBase, explain, torqueAt, type Working } from '@hot-spline/core';
import { AXLES, SIDES, type AxleName, type Side } from '../base/names';
import type { Build } from '../frame/document';
import { defineCapability } from '../frame/capability';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { gearing } from '../gearing';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { unit } from '../unit';
import { shaftFigures } from './ids';
import {
  propState,
  propTorque,
  shaftBounds,
  shaftMargin,
  shaftTorque,
  shearOf,
  splineOf,
  thinnestMm,
  type ShaftTorque,
} from './state';
import type { Shaft, Twisted } from './schema';
import * as words from './words';
import { shaftParts, shaftSteps } from './steps';

/** What is hard on shafts again and again: there one that holds once is watched for fatigue (common practice). */
const HARD: readonly Build['use'][] = ['drag', 'drift', 'rock', 'raid', 'oval'];

/** Shafts of the axles and the prop shaft: what reaches them, what they hold, how fast they may turn. */
export const shaft = defineCapability({
  name: 'shaft',
  needs: [gearing, unit],
  figures: shaftFigures,
  subjects: [],
  work: { steps: shaftSteps, parts: shaftParts },
  place: { sheet: 'shafts', field: 'shaft-left' },
  station: 'shafts',
  inputs: ({ build }) => ({ build }),
  derive: ({ build }, d, given): Partial<Record<AxleName, ShaftTorque>> => {
    const torques: Partial<Record<AxleName, ShaftTorque>> = {};
    for (const name of AXLES) {
      const shafts = build.axles[name]?.shafts;
      const own = given.of(gearing)?.[name];
      if (!shafts || !own) continue;
      const used = d.using([
        'engine',
        'gearbox',
        'road',
        `axles.${name}.tyre`,
        `axles.${name}.finalDrive`,
        `axles.${name}.unit`,
      ]);
      const reaches = shaftTorque(build, name, own, given.of(unit)?.[name] ?? null);
      torques[name] = reaches;
      for (const side of SIDES)
        d.attempt(place(name, `splines-${side}`), 'shafts', () =>
          twisted(build, name, side, shafts[side], reaches, used),
        );
      for (const side of SIDES) floating(build, name, side, d);
      d.attempt(place(name, 'prop-outer'), 'prop', () => prop(build, name, propTorque(build, name, own), used));
      d.attempt(place(name, 'splines-pinion'), 'final', () =>
        pinion(name, shafts.pinion, propTorque(build, name, own), used),
      );
    }
    return torques;
  },
});

const place = (axle: AxleName, field: string) => ({ sheet: 'shafts', axle, field: `${field}-${axle}` });

const reachesWorking = (of: ShaftTorque, side: Side): Working =>
  explain({
    title: `The most that reaches the ${side} shaft`,
    formula: 'the less of T_ring·s, what the unit can give to one side, and μ·N·r/i_hub, what its tyre holds',
    inputs: [
      {
        key: 'ringNm',
        label: 'most at the ring, lowest gear, losses and shock counted',
        value: of.ringNm,
        quantity: 'torque',
      },
      { key: 'share', label: 's, one side’s share', value: of.share, quantity: 'coefficient' },
      { key: 'grip', label: 'μ, grip', value: of.grip, quantity: 'coefficient' },
      { key: 'wheelLoadN', label: 'N, on the wheel', value: of.wheelLoadN, quantity: 'force' },
      { key: 'rollingRadiusMm', label: 'r, rolling radius', value: of.rollingRadiusMm, quantity: 'length' },
      { key: 'hubRatio', label: 'hub reduction', value: of.hubRatio, quantity: 'ratio' },
    ],
    sources: [
      { kind: 'exact', text: 'torque by shares; friction of the tyre' },
      {
        kind: 'guard-band',
        text: 'half of an axle that carries half as much again as it stands; all of it, standing, where one side can get all: the other wheel in the air',
      },
    ],
    result: { label: `reaches the ${side} shaft`, quantity: 'torque' },
    compute: ({ ringNm = 0, share = 0, grip = 0, wheelLoadN = 0, rollingRadiusMm = 0, hubRatio = 1 }) => {
      const { engineNm, tyreNm } = shaftBounds({ ringNm, share, grip, wheelLoadN, rollingRadiusMm, hubRatio });
      return {
        value: Math.min(engineNm, tyreNm),
        steps: [
          { label: 'from the driveline', value: engineNm, quantity: 'torque' },
          { label: 'the tyre holds', value: tyreNm, quantity: 'torque' },
        ],
      };
    },
  });

function twisted(build: Build, axle: AxleName, side: Side, of: Shaft, reaches: ShaftTorque, d: Derivation): void {
  const { margin } = shaftMargin(of, reaches.nm);
  const thinnest = thinnestMm(of);
  const shear = shearOf(of);
  const bore = of.bore ? entryBase(of.bore) : 0;
  d.figure({
    id: shaftFigures.torque(axle, side),
    label: `Most that reaches the ${side} shaft`,
    value: reaches.nm,
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
    explain: () => reachesWorking(reaches, side),
  });
  const id = shaftFigures.yield(axle, side);
  d.figure({
    id,
    label: `${side === 'left' ? 'Left' : 'Right'} shaft yields at`,
    value: torqueAt(thinnest, shear, bore),
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
    explain: () =>
      explain({
        title: `Torque at which the ${side} shaft yields`,
        formula: 'T = π·(d⁴ − b⁴)·τ/(16·d) at the root of the spline, or at the neck',
        inputs: [
          { key: 'd', label: 'thinnest diameter', value: thinnest, quantity: 'length' },
          { key: 'tau', label: 'shear yield, MPa', value: shear, quantity: 'coefficient' },
          { key: 'bore', label: 'bore', value: bore, quantity: 'length' },
        ],
        sources: [
          { kind: 'standard', text: 'ANSI B92.1; torsion of a round', fromMemory: true },
          { kind: 'guard-band', text: 'no stress concentration, no fatigue: the maker’s figure wins' },
        ],
        result: { label: 'yields at', quantity: 'torque' },
        compute: ({ d: diameter = 0, tau = 0, bore: b = 0 }) => ({ value: torqueAt(diameter, tau, b), steps: [] }),
      }),
  });
  if (margin !== null) {
    d.figure({
      id: shaftFigures.margin(axle, side),
      label: `${side === 'left' ? 'Left' : 'Right'} shaft, margin`,
      value: margin,
      quantity: 'ratio',
      decimals: 2,
    });
    const fatigue = HARD.includes(build.use) && margin < 2;
    d.finding({
      id: `shaft.${axle}.${side}.torsion`,
      verdict: margin < 1 ? 'stop' : margin < 1.5 || fatigue ? 'watch' : 'fits',
      place: place(axle, `splines-${side}`),
      station: 'shafts',
      figures: [shaftFigures.torque(axle, side), id, shaftFigures.margin(axle, side)],
      rule: 'torsion at the thinnest place [exact]; below 1 stop, below 1.5 watch, below 2 where it is hard on shafts: guards of ours',
      rests: of.material === 'unknown' && of.shear === null ? 'memory' : 'said',
      facts: {
        axle,
        side,
        margin: fact(margin, 'ratio'),
        torque: fact(reaches.nm, 'torque', 'bolt'),
        by: reaches.limitedBy,
        all: reaches.share >= 1,
        fatigue,
        known: of.material !== 'unknown' || of.shear !== null,
      },
      say: words.torsion,
    });
  }
  if (of.engagement) {
    const asked = splineOf(of).majorMm;
    const engaged = entryBase(of.engagement);
    d.finding({
      id: `shaft.${axle}.${side}.engaged`,
      verdict: engaged < 0.6 * asked ? 'stop' : engaged < asked ? 'watch' : 'fits',
      place: place(axle, `engagement-${side}`),
      station: 'shafts',
      figures: [],
      rule: 'spline at full travel at least one diameter long: a guard of ours',
      facts: { axle, side, engaged: fact(engaged, 'length', 'plate'), asked: fact(asked, 'length', 'plate') },
      say: words.engaged,
    });
  }
  if (of.pinGap) {
    const gap = entryBase(of.pinGap);
    d.finding({
      id: `shaft.${axle}.${side}.pin`,
      verdict: gap <= 0 ? 'stop' : gap < 0.5 ? 'watch' : 'fits',
      place: place(axle, `pin-gap-${side}`),
      station: 'shafts',
      figures: [],
      rule: 'a shaft that is pushed in must not touch pin or block (common practice); below 0.5 mm watch: ours',
      facts: { axle, side, gap: fact(gap, 'length', 'plate') },
      say: words.pin,
    });
  }
}

/** End float of clip or bearing against the sheet, with the shim that brings it there. */
function floating(build: Build, axle: AxleName, side: Side, d: Derivation): void {
  const told = build.axles[axle]?.identity?.sheet.endFloat;
  const read = build.axles[axle]?.shafts?.[side].float;
  if (!told || !read) return;
  const [low, high] = [entryBase(told.value.low), entryBase(told.value.high)];
  const measuredMm = entryBase(read);
  // new − old of the law: nobody asks how thick the shim is that is in.
  const by = measuredMm - (low + high) / 2;
  const fits = measuredMm >= low - 1e-9 && measuredMm <= high + 1e-9;
  d.finding({
    id: `shaft.${axle}.${side}.float`,
    verdict: fits ? 'fits' : 'stop',
    place: place(axle, `float-${side}`),
    station: 'shafts',
    figures: [],
    rule: 'new shim = old + (measured − wanted), the middle of the sheet’s band (common practice)',
    rests: ORIGIN_RESTS[originOf(told)],
    facts: {
      axle,
      side,
      measured: fact(measuredMm, 'length', 'small'),
      low: fact(low, 'length', 'small'),
      high: fact(high, 'length', 'small'),
      by: fact(Math.abs(by), 'length', 'small'),
      way: fits ? '' : by > 0 ? 'thicker' : 'thinner',
    },
    say: words.float,
  });
}

/** How often something holds the torque that reaches it: the same bands for every link. */
const holds = (margin: number) =>
  margin < 1 ? ('stop' as const) : margin < 1.5 ? ('watch' as const) : ('fits' as const);
const LINK_RULE =
  'what it holds over the most that reaches it, losses and shock counted; below 1 stop, below 1.5 watch: guards of ours';

/** The end of the pinion, in torsion at its thinnest place. */
function pinion(axle: AxleName, of: Twisted | null, nm: number, d: Derivation): void {
  if (!of) return;
  const { margin } = shaftMargin(of, nm);
  if (margin === null) return;
  d.figure({ id: shaftFigures.pinion(axle), label: 'Pinion, margin', value: margin, quantity: 'ratio', decimals: 2 });
  d.finding({
    id: `shaft.${axle}.pinion`,
    verdict: holds(margin),
    place: place(axle, 'splines-pinion'),
    station: 'final',
    figures: [shaftFigures.pinion(axle)],
    rule: LINK_RULE,
    rests: of.material === 'unknown' && of.shear === null ? 'memory' : 'said',
    facts: {
      what: 'pinion',
      axle,
      margin: fact(margin, 'ratio'),
      torque: fact(nm, 'torque', 'bolt'),
      known: of.material !== 'unknown' || of.shear !== null,
    },
    say: words.link,
  });
}

function prop(build: Build, axle: AxleName, nm: number, d: Derivation): void {
  const state = propState(build, axle);
  const of = build.axles[axle]?.shafts?.prop;
  if (!state || !of) return;
  const { joints, worst } = state;
  d.figure({
    id: shaftFigures.propTorque(axle),
    label: 'Most that reaches the prop shaft',
    value: nm,
    quantity: 'torque',
    scale: 'bolt',
    decimals: 0,
  });
  const link = (id: string, what: string, field: string, holdsNm: number, known: boolean): void => {
    if (nm === 0) return;
    const margin = holdsNm / nm;
    d.figure({ id, label: `${what}, margin`, value: margin, quantity: 'ratio', decimals: 2 });
    d.finding({
      id: `shaft.${axle}.${field}`,
      verdict: holds(margin),
      place: place(axle, field),
      station: 'prop',
      figures: [shaftFigures.propTorque(axle), id],
      rule: LINK_RULE,
      rests: known ? 'said' : 'memory',
      facts: {
        what: what.toLowerCase(),
        axle,
        margin: fact(margin, 'ratio'),
        torque: fact(nm, 'torque', 'bolt'),
        known,
      },
      say: words.link,
    });
  };
  link(
    shaftFigures.tube(axle),
    'Prop shaft tube',
    'prop-wall',
    torqueAt(state.outerMm, shearOf(of), state.boreMm),
    of.material !== 'unknown' || of.shear !== null,
  );
  if (of.jointTorque) link(shaftFigures.joint(axle), 'Prop shaft joint', 'prop-joint', entryBase(of.jointTorque), true);
  d.figure({
    id: shaftFigures.propRpm(axle),
    label: 'Prop shaft, fastest',
    value: state.rpm,
    quantity: 'rotation',
    decimals: 0,
  });
  d.figure({
    id: shaftFigures.critical(axle),
    label: 'Critical speed',
    value: state.criticalRpm,
    quantity: 'rotation',
    decimals: 0,
  });
  d.finding({
    id: `shaft.${axle}.critical`,
    verdict: state.rpm >= state.criticalRpm ? 'stop' : state.rpm > state.usableRpm ? 'watch' : 'fits',
    place: place(axle, 'prop-outer'),
    station: 'prop',
    figures: [shaftFigures.propRpm(axle), shaftFigures.critical(axle)],
    rule: 'first critical speed of a tube with pinned ends [std: beam theory]; at most three quarters of it (from memory)',
    facts: {
      axle,
      fastest: fact(state.rpm, 'rotation'),
      usable: fact(state.usableRpm, 'rotation'),
      critical: fact(state.criticalRpm, 'rotation'),
    },
    say: words.critical,
  });
  d.finding({
    id: `shaft.${axle}.angles`,
    verdict: joints.verdict,
    place: place(axle, 'prop-front-angle'),
    station: 'prop',
    figures: [shaftFigures.propRpm(axle)],
    rule: 'swing that both joints leave, ω²·|θ₁² − θ₂²| [std: kinematics]; about 400 rad/s² comfortable, 1000 the end; rpm × degrees of a joint about 17 000 (trade tables, from memory)',
    facts: {
      axle,
      swing: fact(joints.swingRadS2, 'count'),
      between: fact(worst.swingRadS2, 'count'),
      product: fact(worst.rpmDegrees, 'count'),
      inPhase: of.inPhase,
    },
    say: words.angles,
  });
}
