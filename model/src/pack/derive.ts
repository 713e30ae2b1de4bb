import {
  FORCE_PEAK_RATIO,
  LISTED_TRAVEL,
  columnPeak,
  entryBase,
  explain,
  isDiscs,
  say,
  saySmall,
  springColumn,
  type SpringGroup,
  type UnitSystem,
} from '@hot-spline/core';
import { SIDES, type AxleName, type PlateSpec, type Side } from '../document/schema';
import type { Derivation, Verdict } from '../engine/figure';
import { EXACT } from '../gearing/axle-gearing';
import { SPRING_SOURCES, explainBreakaway } from './explain';
import { isSpring, packSideState, sideFriction, type PackSideState, type PackState, type Readings } from './state';
import { findSwapped } from './swapped';
import { findInspected } from './inspect';
import { wrenchFigures } from './wrench';

export const PACK_GUARDS = {
  /** Share of the cone height up to which dished springs are listed (EN 16983, from memory). */
  springTravel: LISTED_TRAVEL,
} as const;

const title = (side: Side): string => (side === 'left' ? 'Left' : 'Right');

/** Packs of one axle: figures and what they say. */
export function derivePack(
  plate: PlateSpec,
  axle: AxleName,
  readings: Readings,
  today: string | null,
  d: Derivation,
): PackState {
  const state: PackState = {
    left: packSideState(plate, axle, 'left', readings),
    right: packSideState(plate, axle, 'right', readings),
  };
  for (const side of SIDES) {
    sideFigures(plate, axle, side, state[side], d);
    findHeight(plate, axle, side, state[side], d);
    findInterfaces(axle, side, state[side], d);
    if (plate.preload.from === 'dished-springs') findSprings(axle, side, state[side], d);
  }
  findBalance(plate, axle, state, d);
  findUnmeasured(axle, state, d);
  findInspected(plate, axle, state, today, d);
  findSwapped(axle, state, [entryBase(plate.packs.left.caseDepth), entryBase(plate.packs.right.caseDepth)], d);
  wrenchFigures(plate, axle, state, readings, d);
  return state;
}

function sideFigures(plate: PlateSpec, axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const id = (what: string): string => `pack.${axle}.${side}.${what}`;
  d.figure({
    id: id('interfaces'),
    label: `${title(side)} friction interfaces`,
    value: state.interfaces,
    quantity: 'count',
  });
  d.figure({
    id: id('height'),
    label: `${title(side)} stack height`,
    value: state.stackMm,
    quantity: 'length',
    explain: () =>
      explain({
        title: `${title(side)} stack height`,
        formula:
          state.stackFrom === 'stack'
            ? 'measured as one stack under light clamp'
            : 'stack height = sum of the pieces, shim included, springs not',
        inputs:
          state.stackFrom === 'stack'
            ? [{ key: 'stack', label: 'whole stack, measured', value: state.stackMm, quantity: 'length' }]
            : state.members
                .filter(({ member }) => !isSpring(member))
                .map((piece, i) => ({
                  key: piece.member.id,
                  label: `${i + 1} ${piece.member.label}, ${piece.reading ? 'measured' : 'catalogue'}`,
                  value: piece.thicknessMm,
                  quantity: 'length' as const,
                })),
        sources: [EXACT],
        result: { label: 'stack height', quantity: 'length' },
        compute: (v) => ({ value: Object.values(v).reduce((a, b) => a + b, 0) }),
      }),
  });
  d.figure({
    id: id('clamp'),
    label: `${title(side)} clamp at installed height`,
    value: state.clampProblem ? null : state.clampN,
    instead: state.clampProblem?.kind === 'slack' ? 'slack' : 'none',
    quantity: 'force',
    ...(state.clampProblem ? {} : { explain: () => explainClamp(plate, side, state) }),
  });
  d.figure({
    id: id('breakaway'),
    label: `${title(side)} pack, friction torque`,
    value: state.breakawayNm,
    quantity: 'torque',
    explain: () =>
      explainBreakaway(`${title(side)} pack, friction torque`, sideFriction(plate, state.interfaces, state.clampN)),
  });
}

function groupWords(group: SpringGroup): string {
  if (!isDiscs(group)) {
    return 'points' in group
      ? `measured at ${group.points.map(({ heightMm, forceN }) => `${heightMm.toFixed(2)} mm ${forceN.toFixed(0)} N`).join(', ')}`
      : `${group.rateNPerMm.toFixed(1)} N/mm, free ${group.freeMm.toFixed(3)}, solid ${group.solidMm.toFixed(3)} mm`;
  }
  const { outerDiameterMm: outer, innerDiameterMm: inner, thicknessMm, coneHeightMm } = group.spring;
  return `${group.nested} nested, ${outer.toFixed(1)} × ${inner.toFixed(1)} × ${thicknessMm.toFixed(3)}, h₀ ${coneHeightMm.toFixed(3)} mm`;
}

function explainClamp(plate: PlateSpec, side: Side, state: PackSideState) {
  if (plate.preload.from === 'measured-force') {
    return explain({
      title: `${title(side)} clamp force`,
      formula: 'force measured at installed height',
      inputs: [{ key: 'force', label: 'measured force', value: state.clampN, quantity: 'force' }],
      sources: [{ kind: 'exact', text: 'measured, not computed' }],
      result: { label: 'clamp force', quantity: 'force' },
      compute: ({ force = 0 }) => ({ value: force }),
    });
  }
  return explain({
    title: `${title(side)} clamp force of the springs`,
    formula:
      'dished springs: F(s) = 4E/(1−ν²) · t⁴/(K₁·Dₑ²) · s/t · [(h₀/t − s/t)·(h₀/t − s/2t) + 1], coils and wave plates: F = rate × s; S-springs: straight lines between the measured points. Travel s from free height less installed height; nested forces add, in series travels add',
    inputs: [
      { key: 'depth', label: 'case depth', value: state.caseDepthMm, quantity: 'length' },
      { key: 'stack', label: 'stack height', value: state.stackMm, quantity: 'length' },
      { key: 'free', label: 'free height of the springs', value: state.springFreeMm, quantity: 'length' },
      ...state.springs.map((group, i) => ({
        key: `n${i}`,
        label: `group ${i + 1}: ${groupWords(group)}`,
        value: isDiscs(group) ? group.nested : 1,
        quantity: 'count' as const,
      })),
    ],
    sources: SPRING_SOURCES,
    result: { label: 'clamp force', quantity: 'force' },
    note: 'Friction between nested springs is not counted.',
    compute: ({ depth = 0, stack = 0, free = 0 }) => {
      const travel = free - (depth - stack);
      const column = springColumn(state.springs, travel);
      return {
        value: column.forceN,
        steps: [
          { label: 'installed height', value: depth - stack, quantity: 'length' },
          { label: 'travel, all springs', value: travel, quantity: 'length' },
          { label: 'share of the way to flat', value: 100 * column.flattest, quantity: 'percent' },
        ],
      };
    },
  });
}

const signed = (mm: number, system: UnitSystem): string => `${saySmall(mm, system)} ${mm < 0 ? 'under' : 'over'}`;

function findHeight(plate: PlateSpec, axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const target = entryBase(plate.targetHeight);
  const tolerance = entryBase(plate.tolerance);
  const off = state.stackMm - target;
  const size = Math.abs(off) - 1e-9;
  const verdict: Verdict = size <= tolerance ? 'fits' : size <= 2 * tolerance ? 'watch' : 'stop';
  const shim = state.members.find(({ member }) => member.kind === 'shim');
  d.finding({
    id: `pack.height.${axle}.${side}`,
    verdict,
    sheet: 'pack',
    axle,
    anchor: `stack-${side}`,
    figures: [`pack.${axle}.${side}.height`],
    rule: 'our guard band: inside the tolerance fits, inside twice the tolerance is watched',
    say: (system) => {
      const height = say(state.stackMm, 'length', system);
      if (verdict === 'fits') {
        return {
          title: `${title(side)} stack on target`,
          detail:
            Math.abs(off) < 0.001
              ? `${height}, as specified.`
              : `${height}, ${signed(off, system)} ${say(target, 'length', system)}.`,
        };
      }
      const wanted = shim ? shim.thicknessMm - off : 0;
      const cure =
        shim && wanted > 0
          ? `Change the ${saySmall(shim.thicknessMm, system)} shim for ${saySmall(wanted, system)}.`
          : `${off < 0 ? 'Add' : 'Take out'} ${saySmall(off, system)} of shim or plate.`;
      return {
        title: `${title(side)} pack ${saySmall(off, system)} ${off < 0 ? 'short' : 'tall'}`,
        detail: `${height} against ${say(target, 'length', system)}. ${cure}${off > 0 ? ' Too tall: the pin will not go in, gears bind.' : ' Too short: preload is lost.'}`,
      };
    },
  });
}

function findInterfaces(axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const turns = [{ keyedTo: 'gear' as const }, ...state.members, { keyedTo: 'case' as const }];
  const idle = state.members
    .map((piece, i) => ({ piece, before: turns[i], i }))
    .filter(({ piece, before, i }) => i > 0 && piece.member.kind === 'eared' && before?.keyedTo === 'case')
    .map(({ i }) => `${i} and ${i + 1}`);
  const bare = state.members.findIndex((piece, i) => {
    const before = turns[i];
    return i > 0 && before !== undefined && before.keyedTo !== piece.keyedTo && !state.gaps[i];
  });
  d.finding({
    id: `pack.interfaces.${axle}.${side}`,
    verdict: state.interfaces === 0 ? 'stop' : bare > 0 ? 'watch' : 'fits',
    sheet: 'pack',
    axle,
    anchor: `stack-${side}`,
    figures: [`pack.${axle}.${side}.interfaces`],
    rule: 'an interface needs neighbours that turn with different bodies and a lining between them [exact]',
    say: () => {
      if (state.interfaces === 0) {
        return {
          title: `${title(side)} pack has no friction interface`,
          detail: 'It holds nothing: alternate eared and splined plates, one of each pair lined.',
        };
      }
      if (bare > 0) {
        return {
          title: `${title(side)} pack runs bare metal at ${bare} and ${bare + 1}`,
          detail: 'Two unlined plates rub on each other: they gall, and make no interface here.',
        };
      }
      const count = state.interfaces === 1 ? '1 friction interface' : `${state.interfaces} friction interfaces`;
      return {
        title: `${title(side)} pack: ${count}`,
        detail: idle.length
          ? `Two that turn together at ${idle.join(', ')} make none: as you ordered them.`
          : 'Every pair of neighbours works.',
      };
    },
  });
}

function findSprings(axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const common = { sheet: 'pack' as const, axle, anchor: `stack-${side}`, figures: [`pack.${axle}.${side}.clamp`] };
  const problem = state.clampProblem;
  const gap = state.springInstalledMm - state.springFreeMm;
  if (problem) {
    d.finding({
      ...common,
      id: `pack.spring.${axle}.${side}`,
      verdict: 'stop',
      rule: 'no travel, no clamp force [exact]',
      say: (system) =>
        problem.kind === 'slack' && state.springs.length
          ? {
              title: `${title(side)} springs stand free by ${saySmall(gap, system)}`,
              detail: `Room ${say(state.springInstalledMm, 'length', system)}, free height ${say(state.springFreeMm, 'length', system)}: no preload. Add ${saySmall(gap, system)} of shim and the preload you want.`,
            }
          : problem.kind === 'slack'
            ? {
                title: `${title(side)} pack has no spring`,
                detail: 'Add a dished spring, or give the clamp force as measured.',
              }
            : {
                title:
                  state.springInstalledMm <= 0
                    ? `${title(side)} pack leaves its springs no room`
                    : `${title(side)} springs can’t take this height`,
                detail:
                  problem.field === 'travelMm'
                    ? `They would have to close by ${say(-gap, 'length', system)} and can by ${say(columnPeak(state.springs).travelMm, 'length', system)}.`
                    : problem.error.replace(/^[\w[\]]+: /, ''),
              },
    });
    return;
  }
  const flattest = state.column?.flattest ?? 0;
  const doubled = state.springs.some(
    (group) => isDiscs(group) && group.spring.coneHeightMm / group.spring.thicknessMm > FORCE_PEAK_RATIO,
  );
  const hard = flattest > PACK_GUARDS.springTravel;
  d.finding({
    ...common,
    id: `pack.spring.${axle}.${side}`,
    verdict: doubled || hard ? 'watch' : 'fits',
    rule: doubled
      ? 'h₀/t above √2: the force has a maximum and falls again [exact, from the formula]'
      : 'our guard band: at most 75 % of the cone height (EN 16983 tables, from memory)',
    say: (system) => {
      const at = `${say(state.clampN, 'force', system)} at ${say(state.springInstalledMm, 'length', system)}`;
      if (doubled) {
        return {
          title: `${title(side)} spring force belongs to two heights`,
          detail: `${at}. The cone is high for its thickness: past the top the force falls again, so measure the height, don’t go by feel.`,
        };
      }
      return hard
        ? {
            title: `${title(side)} springs ${Math.round(100 * flattest)} % of the way to flat`,
            detail: `${at}. Past 75 % they tire early and the force climbs steeply.`,
          }
        : { title: `${title(side)} springs ${Math.round(100 * flattest)} % of the way to flat`, detail: `${at}.` };
    },
  });
}

function findBalance(plate: PlateSpec, axle: AxleName, { left, right }: PackState, d: Derivation): void {
  const apart = left.stackMm - right.stackMm;
  const torque = left.breakawayNm - right.breakawayNm;
  const uneven = left.interfaces !== right.interfaces;
  const verdict = uneven || Math.abs(apart) - 1e-9 > entryBase(plate.tolerance) ? 'watch' : 'fits';
  d.finding({
    id: `pack.balance.${axle}`,
    verdict,
    sheet: 'pack',
    axle,
    anchor: 'stack-left',
    figures: [`pack.${axle}.left.height`, `pack.${axle}.right.height`],
    rule: 'left and right should match (common practice); our guard band: the stack tolerance',
    say: (system) => ({
      title: uneven
        ? `Left has ${left.interfaces} interfaces, right ${right.interfaces}`
        : `Left and right differ by ${saySmall(apart, system)}`,
      detail: `The packs hold ${say(Math.abs(torque), 'torque', system)} apart${Math.abs(torque) < 0.05 ? '' : `, ${torque > 0 ? 'left' : 'right'} more`}.${verdict === 'watch' && !uneven ? ` Move shim so that both land within ${saySmall(entryBase(plate.tolerance), system)}.` : ''}`,
    }),
  });
}

function findUnmeasured(axle: AxleName, state: PackState, d: Derivation): void {
  const open = SIDES.flatMap((side) =>
    state[side].stackFrom === 'stack'
      ? []
      : state[side].members.filter((piece) => !piece.reading).map((piece) => ({ side, piece })),
  );
  const first = open[0];
  if (!first) return;
  const all = state.left.members.length + state.right.members.length;
  d.finding({
    id: `pack.measured.${axle}`,
    verdict: 'not-yet',
    sheet: 'pack',
    axle,
    anchor: `measure-${first.side}-${first.piece.member.id}`,
    figures: [],
    rule: 'catalogue thickness stands in until a piece is measured',
    say: () => ({
      title: `${open.length} of ${all} pieces not measured yet`,
      detail: `Catalogue values stand in. Next: ${first.side}, ${first.piece.member.label}.`,
    }),
  });
}
