import type { Capability } from './engine/capability';
import { assumed } from './assumed';
import { Registry } from './engine/calculations';
import { gearing } from './gearing';
import { identity } from './identity';
import { defineHeavy } from './engine/heavy';
import { library } from './library';
import { mesh } from './mesh';
import { pack } from './pack';
import { heavySure } from './pack/heavy';
import { point } from './point';
import { road } from './road';
import { heavySearch } from './road/heavy';
import { unit } from './unit';

/** Every capability of the model, in the order of need: what one takes stands before it. */
export const capabilities = [library, assumed, gearing, identity, road, point, pack, unit, mesh] as const;

type IdsOf<C> =
  C extends Capability<never, unknown, infer F>
    ? { [K in keyof F]: F[K] extends (...of: never[]) => infer Id ? Id : never }[keyof F]
    : never;

/** Ids of all figures that there are. */
export type FigureId = IdsOf<(typeof capabilities)[number]>;

/** Everything that can be read. */
export const subjects = capabilities.flatMap((capability) => [...capability.subjects]);

/** A public calculation that takes seconds, as one more piece of heavy work. */
const calculation = defineHeavy<
  'calculation',
  { readonly name: string; readonly input: unknown; readonly withWorking: boolean },
  Record<string, unknown>
>({
  name: 'calculation',
  run: ({ name, input, withWorking }) => calculations.run(name, input, withWorking),
});

/** All heavy work of the model, by its name. */
export const HEAVY = { 'road.search': heavySearch, 'pack.sure': heavySure, calculation } as const;

/** Every public calculation. */
export const calculations = new Registry(capabilities.flatMap((capability) => [...capability.calculations]));
