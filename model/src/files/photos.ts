import { AXLES, SIDES } from '../base/names';
import type { Build } from '../document/schema';
import type { LedgerEntry } from '../frame/readings';
import type { Condition } from '../pack/schema';

/** What a photo may be; other pictures are made into the first of these before they are sent. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type PhotoType = (typeof PHOTO_TYPES)[number];
export const PHOTO_BYTES = 2 * 1024 * 1024;

/** Ids of all photos that a build and its ledger name, each once, in a fixed order. */
export function photosOf(build: Build, ledger: readonly LedgerEntry[] = []): string[] {
  const conditions = AXLES.flatMap((axle) =>
    SIDES.flatMap((side): (Condition | null)[] => {
      const pack = build.axles[axle]?.unit.plate?.packs[side];
      return pack
        ? [pack.gearFace.condition, ...pack.members.map(({ condition }) => condition), pack.caseWall.condition]
        : [];
    }),
  );
  const read = ledger.flatMap((entry) =>
    entry.kind === 'reading' && entry.value.of === 'photos' ? entry.value.photos : [],
  );
  return [...new Set([...conditions.flatMap((condition) => condition?.photos ?? []), ...read])].sort();
}
