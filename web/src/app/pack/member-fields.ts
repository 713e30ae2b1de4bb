import { LIMITS, type Entry, type NumberRange, type Quantity } from '@hot-spline/core';
import type { Member } from '@hot-spline/model';

export interface MemberField {
  readonly key: string;
  readonly label: string;
  readonly quantity: Quantity;
  readonly range: NumberRange;
  readonly usual?: readonly [number, number];
}

const length = (key: string, label: string, usual: readonly [number, number]): MemberField => ({
  key,
  label,
  quantity: 'length',
  range: LIMITS.thicknessMm,
  usual,
});
const diameter = (key: string, label: string): MemberField => ({
  key,
  label,
  quantity: 'length',
  range: LIMITS.diameterMm,
  usual: [20, 400],
});

/** What a member is described by beside its thickness, by kind. */
const FIELDS: Readonly<Partial<Record<Member['kind'], readonly MemberField[]>>> = {
  spring: [
    length('coneHeight', 'Cone height h₀', [0.1, 6]),
    diameter('outerDiameter', 'Outside Ø'),
    diameter('innerDiameter', 'Inside Ø'),
  ],
  wave: [
    length('waveHeight', 'Height of the wave', [0.1, 6]),
    {
      key: 'flatForce',
      label: 'Force that presses it flat',
      quantity: 'force',
      range: { above: 0, max: LIMITS.forceN.max, unit: 'N' },
    },
  ],
  coils: [
    {
      key: 'rate',
      label: 'Rate of one coil',
      quantity: 'stiffness',
      range: { above: 0, max: 1e5, unit: 'N/mm' },
    },
    length('solidHeight', 'Height coil on coil', [2, 80]),
  ],
};

export const memberFields = (kind: Member['kind']): readonly MemberField[] => FIELDS[kind] ?? [];

export const memberEntry = (member: Member, key: string): Entry | null =>
  (member as Readonly<Record<string, unknown>>)[key] as Entry | null;

export function setMemberEntry(member: Member, key: string, entry: Entry): void {
  (member as unknown as Record<string, Entry>)[key] = entry;
}

/** Thickness as it is called for a kind. */
export const thicknessLabel = (kind: Member['kind']): string =>
  kind === 'coils' || kind === 's-spring' ? 'Free height' : 'Catalogue thickness';
