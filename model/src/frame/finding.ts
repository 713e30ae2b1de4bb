import type { Quantity, Scale, UnitSystem } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Rests } from './figure';

/** Most serious first in every list. */
export const VERDICTS = ['stop', 'watch', 'not-yet', 'fits'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** Where a finding is put right: a sheet, its tab, and the field by its own name. */
export interface Place {
  readonly sheet: string;
  /** Tab of the sheet; the first one where none is named. */
  readonly tab?: string;
  readonly field: string;
  readonly axle?: AxleName;
}

/** The stations of the Line, engine to ground. */
export const STATIONS = [
  'engine',
  'coupling',
  'gearbox',
  'transfer',
  'prop',
  'final',
  'unit',
  'packs',
  'shafts',
  'tyres',
] as const;
export type StationKind = (typeof STATIONS)[number];

/** A number with its unit, or a word: what a finding says, before it is put in words. */
export interface NumberFact {
  readonly value: number;
  readonly quantity: Quantity;
  readonly scale?: Scale;
}
export type Fact = NumberFact | string | boolean;
export type Facts = Readonly<Record<string, Fact>>;

export interface Words {
  readonly title: string;
  readonly detail: string;
}

/** A judgement about figures. */
export interface Finding {
  readonly id: string;
  readonly verdict: Verdict;
  readonly place: Place;
  readonly station: StationKind;
  /** Ids of the figures that it rests on. */
  readonly figures: readonly string[];
  /** What it rests on; what is assumed never judges. */
  readonly rests: Rests;
  /** The rule behind it and how that is marked. */
  readonly rule: string;
  /** How far off, which shim, against what. */
  readonly facts: Facts;
  /** What, by how much, and what to do, in the builder's units: made from the facts alone. */
  readonly say: (system: UnitSystem) => Words;
}

export const fact = (value: number, quantity: Quantity, scale?: Scale): NumberFact =>
  scale === undefined ? { value, quantity } : { value, quantity, scale };
