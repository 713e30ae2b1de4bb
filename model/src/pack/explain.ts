import {
  discSpringForce,
  discSpringK1,
  explain,
  frictionInterfaces,
  frictionRadius,
  packBreakaway,
  packShims,
  type DiscSpring,
  type PackFriction,
  type PackMember,
  type ShimSide,
  type ShimStock,
  type Source,
  type Working,
} from '@hot-spline/core';

export const SPRING_SOURCES: readonly Source[] = [
  { kind: 'standard', text: 'Almen & Laszlo 1936; EN 16984' },
  { kind: 'standard', text: 'E 206 GPa, ν 0.3, spring steel, unless said otherwise', fromMemory: true },
];

/** Working of the friction torque of one pack. */
export function explainBreakaway(title: string, pack: PackFriction): Working {
  const wear = pack.wearModel === 'uniform-wear';
  return explain({
    title,
    formula: wear
      ? 'T = μ × n × F × (rₒ + rᵢ) ÷ 2, uniform wear'
      : 'T = μ × n × F × ⅔ (rₒ³ − rᵢ³) ÷ (rₒ² − rᵢ²), uniform pressure',
    inputs: [
      { key: 'mu', label: 'friction coefficient', value: pack.frictionCoefficient, quantity: 'coefficient' },
      { key: 'n', label: 'friction interfaces', value: pack.interfaces, quantity: 'count' },
      { key: 'force', label: 'clamp force', value: pack.clampN, quantity: 'force' },
      { key: 'ro', label: 'outer friction radius', value: pack.outerRadiusMm, quantity: 'length' },
      { key: 'ri', label: 'inner friction radius', value: pack.innerRadiusMm, quantity: 'length' },
    ],
    sources: [
      { kind: 'standard', text: 'Shigley, axial clutches' },
      { kind: 'guard-band', text: 'the friction coefficient is yours to edit', fromMemory: true },
    ],
    result: { label: 'friction torque of the pack', quantity: 'torque' },
    compute: ({ mu = 0, n = 0, force = 0, ro = 0, ri = 0 }) => ({
      value: packBreakaway({
        frictionCoefficient: mu,
        interfaces: n,
        clampN: force,
        outerRadiusMm: ro,
        innerRadiusMm: ri,
        wearModel: pack.wearModel,
      }),
      steps: [{ label: 'mean friction radius', value: frictionRadius(ro, ri, pack.wearModel), quantity: 'length' }],
    }),
  });
}

/** Working of the force of one dished spring. */
export function explainDiscSpring(spring: DiscSpring, travelMm: number): Working {
  return explain({
    title: 'Force of a dished spring',
    formula: 'F(s) = 4E/(1−ν²) · t⁴/(K₁·Dₑ²) · s/t · [(h₀/t − s/t)·(h₀/t − s/2t) + 1]',
    inputs: [
      { key: 'outer', label: 'outer diameter Dₑ', value: spring.outerDiameterMm, quantity: 'length' },
      { key: 'inner', label: 'inner diameter Dᵢ', value: spring.innerDiameterMm, quantity: 'length' },
      { key: 't', label: 'thickness t', value: spring.thicknessMm, quantity: 'length' },
      { key: 'h', label: 'cone height h₀', value: spring.coneHeightMm, quantity: 'length' },
      { key: 's', label: 'travel s', value: travelMm, quantity: 'length' },
    ],
    sources: SPRING_SOURCES,
    result: { label: 'force', quantity: 'force' },
    compute: ({ outer = 0, inner = 0, t = 0, h = 0, s = 0 }) => ({
      value: discSpringForce(
        { ...spring, outerDiameterMm: outer, innerDiameterMm: inner, thicknessMm: t, coneHeightMm: h },
        s,
      ),
      steps: [
        { label: 'K₁', value: discSpringK1(outer / inner), quantity: 'coefficient' },
        { label: 'h₀/t', value: h / t, quantity: 'ratio' },
        { label: 'share of the way to flat', value: (100 * s) / h, quantity: 'percent' },
      ],
    }),
  });
}

/** Working of the friction interfaces of a pack: the gaps between neighbours, one by one. */
export function explainInterfaces(members: readonly PackMember[]): Working {
  const { interfaces, gaps } = frictionInterfaces(members);
  return explain({
    title: 'Friction interfaces',
    formula: 'count the gaps whose two neighbours turn with different bodies and have a lining between them',
    inputs: members.map((member, i) => ({
      key: `m${i}`,
      label: `${i + 1}`,
      value: `${member.keyedTo === 'gear' ? 'turns with the side gear' : 'turns with the case'}, ${member.lined ? 'lined' : 'plain'}`,
      quantity: 'text',
    })),
    sources: [{ kind: 'exact', text: 'definition' }],
    result: { label: 'friction interfaces', quantity: 'count' },
    compute: () => ({
      value: interfaces,
      steps: gaps.map((works, i) => ({
        label: `${i + 1} on ${i + 2}`,
        value: works ? 'works' : 'idle',
        quantity: 'text' as const,
      })),
    }),
  });
}

/** Working of the shims chosen from stock: what each side lands at. */
export function explainShims(
  sides: readonly ShimSide[],
  stock: readonly ShimStock[],
  maxPiecesPerSide: number,
): Working {
  const chosen = packShims(sides, stock, maxPiecesPerSide);
  return explain({
    title: 'Shims from stock',
    formula:
      'least worst |height − target| over the sides, then least sum of both, then fewest pieces; every piece once',
    inputs: sides.flatMap((side, i) => [
      { key: `fixed${i}`, label: `side ${i + 1} without shims`, value: side.fixedMm, quantity: 'length' as const },
      { key: `target${i}`, label: `side ${i + 1} target`, value: side.targetMm, quantity: 'length' as const },
    ]),
    sources: [{ kind: 'exact', text: 'every stack that could be better is looked at' }],
    result: { label: 'worst error', quantity: 'length' },
    compute: (v) => {
      const moved = sides.map((_, i) => ({ fixedMm: v[`fixed${i}`] ?? 0, targetMm: v[`target${i}`] ?? 0 }));
      return {
        value: packShims(moved, stock, maxPiecesPerSide).worstErrorMm,
        steps: chosen.sides.map(({ piecesMm, heightMm }, i) => ({
          label: `side ${i + 1}: ${piecesMm.map((piece) => piece.toFixed(3)).join(' + ') || 'no shim'}`,
          value: heightMm,
          quantity: 'length' as const,
        })),
      };
    },
  });
}
