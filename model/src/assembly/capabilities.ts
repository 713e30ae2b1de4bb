import type { Capability } from '../frame/capability';
import { assumed } from '../assumed';
import { box } from '../box';
import { gearing } from '../gearing';
import { identity } from '../identity';
import { inspect } from '../inspect';
import { joint } from '../joint';
import { library } from '../library';
import { mesh } from '../mesh';
import { pack } from '../pack';
import { plan } from '../plan';
import { point } from '../point';
import { preload } from '../preload';
import { road } from '../road';
import { runin } from '../runin';
import { shaft } from '../shaft';
import { unit } from '../unit';

/** Every capability of the model, in the order of need: what one takes stands before it. */
export const capabilities = [
  library,
  assumed,
  gearing,
  identity,
  road,
  box,
  point,
  pack,
  unit,
  mesh,
  preload,
  joint,
  shaft,
  inspect,
  plan,
  runin,
] as const;

type IdsOf<C> =
  C extends Capability<never, unknown, infer F>
    ? { [K in keyof F]: F[K] extends (...of: never[]) => infer Id ? Id : never }[keyof F]
    : never;

/** Ids of all figures that there are. */
export type FigureId = IdsOf<(typeof capabilities)[number]>;
