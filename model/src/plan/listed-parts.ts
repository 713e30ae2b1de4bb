import { AXLES, type AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { Work } from './schema';

type Part = Work['parts'][number];

/** A part on the list of a build. */
export interface ListedPart extends Pick<Part, 'name' | 'count' | 'state' | 'supplier' | 'number' | 'price'> {
  readonly axle: AxleName;
  /** Its id on the parts list of the axle. */
  readonly part: string;
}

/** What stands on the parts lists of a build, axle by axle. Practice lists nothing. */
export function listedParts(build: Build): readonly ListedPart[] {
  if (build.practice !== null) return [];
  return AXLES.flatMap((axle) =>
    (build.axles[axle]?.work?.parts ?? []).map(({ id, name, count, state, supplier, number, price }): ListedPart => ({
      ...{ axle, part: id, name, count, state, supplier, number, price },
    })),
  );
}
