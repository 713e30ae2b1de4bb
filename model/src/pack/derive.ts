import {
  FORCE_PEAK_RATIO,
  LISTED_TRAVEL,
  columnPeak,
  entryBase,
  explain,
  isDiscs,
  springColumn,
  type SpringGroup,
} from '@hot-spline/core';
import { SIDES, capital, type AxleName, type Side } from '../base/names';
import type { PlateSpec } from './schema';
import type { Derivation } from '../frame/derivation';
import { fact, type Verdict } from '../frame/finding';
import type { Readings } from '../frame/readings';
import { packFigures } from './ids';
import * as words from './words';
import { EXACT, type Rests } from '../frame/figure';
import { SPRING_SOURCES, explainBreakaway } from './explain';
import { packStateOf, type PackContext } from './pack-state';
import { isSpring, sideFriction, type PackSideState, type PackState } from './state';
import { findSwapped } from './swapped';
import { findInspected } from './inspect';
import { wrenchFigures } from './wrench';

export const PACK_GUARDS = {
  /** Share of the cone height up to which dished springs are listed (EN 16983, from memory). */
  springTravel: LISTED_TRAVEL,
} as const;

const title = (side: Side): string => capital(side);

/** Packs of one axle: figures and what they say. */
export function derivePack(
  plate: PlateSpec,
  axle: AxleName,
  readings: Readings,
  context: PackContext,
  today: string | null,
  given: Derivation,
): PackState {
  const state = packStateOf(plate, axle, readings, context);
  const d = given.using(packUses(axle, state));
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
  findBetween(plate, axle, state, d);
  wrenchFigures(plate, axle, state, readings, context, d);
  return state;
}

/** What of the unit the packs rest on: what was measured is no stand-in, whatever stands in the document. */
function packUses(axle: AxleName, state: PackState): readonly string[] {
  const plate = `axles.${axle}.unit.plate`;
  return [
    `${plate}.frictionCoefficient`,
    `${plate}.targetHeight`,
    ...SIDES.flatMap((side) => [
      ...(state[side].caseDepthReading === null ? [`${plate}.packs.${side}.caseDepth`] : []),
      ...(stackRests(state[side]) === 'measured' ? [] : [`${plate}.packs.${side}.members`]),
    ]),
  ];
}

/** Measured where the stack was, or every piece in it. */
function stackRests({ stackFrom, members }: PackSideState): Rests {
  const read = members.every(({ member, reading }) => isSpring(member) || reading !== null);
  return stackFrom === 'stack' || read ? 'measured' : 'said';
}

function sideFigures(plate: PlateSpec, axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  d.figure({
    id: packFigures.interfaces(axle, side),
    label: `${title(side)} friction interfaces`,
    value: state.interfaces,
    quantity: 'count',
  });
  d.figure({
    id: packFigures.height(axle, side),
    label: `${title(side)} stack height`,
    value: state.stackMm,
    quantity: 'length',
    rests: stackRests(state),
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
    id: packFigures.clamp(axle, side),
    label: `${title(side)} clamp at installed height`,
    value: state.clampProblem ? null : state.clampN,
    instead: state.clampProblem?.kind === 'slack' ? 'slack' : 'none',
    quantity: 'force',
    ...(state.clampProblem ? {} : { explain: () => explainClamp(plate, side, state) }),
  });
  d.figure({
    id: packFigures.breakaway(axle, side),
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
  const [first] = group.discs;
  if (!first) return 'none';
  const { outerDiameterMm: outer, innerDiameterMm: inner, coneHeightMm } = first;
  const thick = group.discs.map(({ thicknessMm }) => thicknessMm.toFixed(3)).join(' + ');
  return `${group.discs.length === 1 ? 'one' : `${group.discs.length} nested`}, ${outer.toFixed(1)} × ${inner.toFixed(1)} × ${thick}, h₀ ${coneHeightMm.toFixed(3)} mm`;
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
        value: isDiscs(group) ? group.discs.length : 1,
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

function findHeight(plate: PlateSpec, axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const targetMm = entryBase(plate.targetHeight);
  const tolerance = entryBase(plate.tolerance);
  const off = state.stackMm - targetMm;
  const size = Math.abs(off) - 1e-9;
  const verdict: Verdict = size <= tolerance ? 'fits' : size <= 2 * tolerance ? 'watch' : 'stop';
  const shim = state.members.find(({ member }) => member.kind === 'shim');
  const wanted = shim ? shim.thicknessMm - off : 0;
  d.finding({
    id: `pack.height.${axle}.${side}`,
    verdict,
    place: { sheet: 'pack', tab: 'stack', axle, field: `stack-${side}` },
    station: 'packs',
    figures: [packFigures.height(axle, side)],
    rule: 'our guard band: inside the tolerance fits, inside twice the tolerance is watched',
    facts: {
      side,
      fits: verdict === 'fits',
      height: fact(state.stackMm, 'length'),
      target: fact(targetMm, 'length'),
      off: fact(off, 'length', 'small'),
      ...(shim && wanted > 0
        ? { shim: fact(shim.thicknessMm, 'length', 'small'), shimWanted: fact(wanted, 'length', 'small') }
        : {}),
    },
    say: words.height,
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
    place: { sheet: 'pack', tab: 'stack', axle, field: `stack-${side}` },
    station: 'packs',
    figures: [packFigures.interfaces(axle, side)],
    rule: 'an interface needs neighbours that turn with different bodies and a lining between them [exact]',
    facts: {
      side,
      interfaces: fact(state.interfaces, 'count'),
      bareAt: bare > 0 ? `${bare} and ${bare + 1}` : '',
      idleAt: idle.join(', '),
    },
    say: words.interfaces,
  });
}

function findSprings(axle: AxleName, side: Side, state: PackSideState, d: Derivation): void {
  const { clampProblem: problem, springs } = state;
  // Springs between the gears have a finding of their own.
  if (springs.length === 0 && state.between) return;
  const common = {
    id: `pack.spring.${axle}.${side}`,
    place: { sheet: 'pack', tab: 'stack', axle, field: `stack-${side}` },
    station: 'packs',
    figures: [packFigures.clamp(axle, side)],
  } as const;
  const room = { room: fact(state.springInstalledMm, 'length'), free: fact(state.springFreeMm, 'length') };
  if (problem) {
    const reach = problem.field === 'travelMm' ? columnPeak(springs).travelMm : 0;
    d.finding({
      ...common,
      verdict: 'stop',
      rule: 'no travel, no clamp force [exact]',
      facts: {
        side,
        ...room,
        problem: problem.kind === 'slack' ? (springs.length ? 'stand free' : 'no spring') : 'refused',
        travelTooFar: problem.field === 'travelMm',
        reach: fact(reach, 'length'),
        error: problem.error,
      },
      say: words.noClamp,
    });
    return;
  }
  const flattest = state.column?.flattest ?? 0;
  const doubled = springs.some(
    (group) =>
      isDiscs(group) &&
      group.discs.some(({ coneHeightMm, thicknessMm }) => coneHeightMm / thicknessMm > FORCE_PEAK_RATIO),
  );
  const hard = flattest > PACK_GUARDS.springTravel;
  d.finding({
    ...common,
    verdict: doubled || hard || state.column?.apart ? 'watch' : 'fits',
    rule: doubled
      ? 'h₀/t above √2: the force has a maximum and falls again [exact, from the formula]'
      : 'our guard band: at most 75 % of the cone height (EN 16983 tables, from memory)',
    facts: {
      side,
      ...room,
      clamp: fact(state.clampN, 'force'),
      flattest: fact(100 * flattest, 'percent'),
      doubled,
      hard,
      apart: state.column?.apart ?? false,
    },
    say: words.springs,
  });
}

/** Springs between the gears: the gap is an input of its own. */
function findBetween(plate: PlateSpec, axle: AxleName, { left }: PackState, d: Derivation): void {
  const { between } = left;
  if (!between || plate.preload.from !== 'dished-springs') return;
  const { gapMm, freeMm, forceN, springs } = between;
  d.figure({
    id: packFigures.between(axle),
    label: 'Spring between the gears',
    value: gapMm === null ? null : forceN,
    instead: 'no gap',
    quantity: 'force',
    ...(gapMm === null
      ? {}
      : {
          explain: () =>
            explain({
              title: 'Force of the springs between the side gears',
              formula: 'force of the springs at free height less gap; nothing where they stand free',
              inputs: [
                { key: 'free', label: 'free height', value: freeMm, quantity: 'length' },
                { key: 'gap', label: 'gap between the gears', value: gapMm, quantity: 'length' },
              ],
              sources: SPRING_SOURCES,
              result: { label: 'force on both packs', quantity: 'force' },
              compute: ({ free = 0, gap = 0 }) => ({
                value: free > gap ? springColumn(springs, free - gap).forceN : 0,
                steps: [{ label: 'travel', value: free - gap, quantity: 'length' }],
              }),
            }),
        }),
  });
  d.finding({
    id: `pack.between.${axle}`,
    verdict: gapMm === null ? 'not-yet' : forceN > 0 ? 'fits' : 'watch',
    place: { sheet: 'pack', tab: 'springs', axle, field: 'gear-gap' },
    station: 'packs',
    figures: [packFigures.between(axle)],
    rule: 'a spring between the gears presses by the gap between them [exact]',
    facts: {
      gap: gapMm === null ? 'open' : 'known',
      free: fact(freeMm, 'length'),
      ...(gapMm === null ? {} : { room: fact(gapMm, 'length'), force: fact(forceN, 'force') }),
    },
    say: words.between,
  });
}

function findBalance(plate: PlateSpec, axle: AxleName, { left, right }: PackState, d: Derivation): void {
  const apart = left.stackMm - right.stackMm;
  const uneven = left.interfaces !== right.interfaces;
  const verdict = uneven || Math.abs(apart) - 1e-9 > entryBase(plate.tolerance) ? 'watch' : 'fits';
  d.finding({
    id: `pack.balance.${axle}`,
    verdict,
    place: { sheet: 'pack', tab: 'stack', axle, field: 'stack-left' },
    station: 'packs',
    figures: [packFigures.height(axle, 'left'), packFigures.height(axle, 'right')],
    rule: 'left and right should match (common practice); our guard band: the stack tolerance',
    facts: {
      fits: verdict === 'fits',
      uneven,
      left: fact(left.interfaces, 'count'),
      right: fact(right.interfaces, 'count'),
      apart: fact(apart, 'length', 'small'),
      torque: fact(left.breakawayNm - right.breakawayNm, 'torque'),
      tolerance: fact(entryBase(plate.tolerance), 'length', 'small'),
    },
    say: words.balance,
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
  d.finding({
    id: `pack.measured.${axle}`,
    verdict: 'not-yet',
    place: { sheet: 'pack', tab: 'measure', axle, field: `measure-${first.side}-${first.piece.member.id}` },
    station: 'packs',
    figures: [],
    rule: 'catalogue thickness stands in until a piece is measured',
    facts: {
      open: fact(open.length, 'count'),
      all: fact(state.left.members.length + state.right.members.length, 'count'),
      nextSide: first.side,
      next: first.piece.member.label,
    },
    say: words.unmeasured,
  });
}
