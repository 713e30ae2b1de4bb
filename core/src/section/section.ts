import { bevelSection, type BevelSection } from './bevel';
import { electricSection, type ElectricSection } from './electric';
import type { Section } from './parts';

export type SectionOf = BevelSection | ({ readonly construction: 'electric-reduction' } & ElectricSection);

/** The section of an axle by its construction; see {@link bevelSection} and {@link electricSection}. */
export const axleSection = (of: SectionOf): Section =>
  of.construction === 'electric-reduction' ? electricSection(of) : bevelSection(of);
