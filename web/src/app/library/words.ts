import { ORIGINS, ORIGIN_WORDS, type Construction, type GearboxSpec, type Origin, type Seat } from '@hot-spline/model';
import type { Brake, OuterSeal, Retention, Spread, WheelBearing } from '@hot-spline/core';
import type { Option } from '../shared/choice';

export const ORIGIN_OPTIONS: readonly Option<Origin>[] = ORIGINS.map((value) => ({
  value,
  label: ORIGIN_WORDS[value],
}));

export const CONSTRUCTION_OPTIONS: readonly Option<Construction>[] = [
  { value: 'integral-head-shim', label: 'Integral, shim under head bearing' },
  { value: 'integral-inboard', label: 'Integral, shims under carrier bearings' },
  { value: 'integral-adjusters', label: 'Integral, threaded adjusters' },
  { value: 'drop-out', label: 'Drop-out carrier' },
  { value: 'independent', label: 'Independent rear unit, side covers' },
  { value: 'transaxle', label: 'Transaxle' },
  { value: 'electric-reduction', label: 'Electric reduction unit' },
];

export const SEAT_OPTIONS: readonly Option<Seat>[] = [
  { value: 'pack', label: 'clutch pack' },
  { value: 'pinion-head', label: 'pinion head' },
  { value: 'support', label: 'pinion support' },
  { value: 'carrier', label: 'carrier sides' },
  { value: 'preload', label: 'beside a solid spacer' },
  { value: 'spacer', label: 'collapsible spacers, by free length' },
  { value: 'box', label: 'gearbox' },
];

export const RETENTION_OPTIONS: readonly Option<Retention | ''>[] = [
  { value: '', label: 'not known' },
  { value: 'c-clips', label: 'C-clips inside the carrier' },
  { value: 'flange', label: 'Flange with nuts' },
  { value: 'unit-bearing', label: 'Unit bearing with axle nut' },
  { value: 'stub', label: 'Stub flange, centre bolt or clip' },
];

const NOT_KNOWN = { value: '', label: 'not known' } as const;
export const BRAKE_OPTIONS: readonly Option<Brake | ''>[] = [
  NOT_KNOWN,
  { value: 'disc', label: 'Disc' },
  { value: 'drum', label: 'Drum' },
];
export const WHEEL_BEARING_OPTIONS: readonly Option<WheelBearing | ''>[] = [
  NOT_KNOWN,
  { value: 'unit', label: 'Bolted on as a unit' },
  { value: 'on-shaft', label: 'Pressed on the shaft' },
  { value: 'in-tube', label: 'In the end of the tube' },
  { value: 'in-hub', label: 'In the hub' },
];
export const OUTER_SEAL_OPTIONS: readonly Option<OuterSeal | ''>[] = [
  NOT_KNOWN,
  { value: 'tube-end', label: 'At the end of the tube' },
  { value: 'none', label: 'None' },
];
export const SPREAD_OPTIONS: readonly Option<Spread | ''>[] = [
  NOT_KNOWN,
  { value: 'spreader', label: 'A spreader, to its limit' },
  { value: 'lever', label: 'A lever, soft fulcrum' },
  { value: 'none', label: 'Nothing' },
];

export const HAND_OPTIONS: readonly Option<'right' | 'left'>[] = [
  { value: 'right', label: 'Right-hand thread' },
  { value: 'left', label: 'LEFT-hand thread' },
];

export const constructionWords = (construction: Construction): string =>
  CONSTRUCTION_OPTIONS.find(({ value }) => value === construction)?.label ?? construction;

export const GEARBOX_OPTIONS: readonly Option<GearboxSpec['box']['value']>[] = [
  { value: 'synchro', label: 'Synchro' },
  { value: 'dog', label: 'Dog' },
  { value: 'sequential', label: 'Sequential' },
  { value: 'automatic', label: 'Automatic' },
  { value: 'fixed', label: 'Fixed reduction' },
];
