import { AXLES, SIDES, capital, subjects, type Build, type Readings } from '@hot-spline/model';

/** Photos of a build with what they show: of readings in force, and of plates that were looked at. */
export function shownPhotos(
  build: Build,
  readings: Readings,
): readonly { readonly id: string; readonly what: string }[] {
  const shown = new Map<string, string>();
  for (const { subject, value } of readings.values()) {
    if (value.of !== 'photos') continue;
    const words = subjects.find(({ what }) => what === subject.what)?.words(subject, build) ?? '';
    for (const id of value.photos) shown.set(id, words);
  }
  for (const axle of AXLES)
    for (const side of SIDES) {
      const pack = build.axles[axle]?.unit.plate?.packs[side];
      pack?.members.forEach(({ condition, label }, i) => {
        for (const id of condition?.photos ?? []) shown.set(id, `${capital(axle)}, ${side} pack: ${i + 1} ${label}`);
      });
    }
  return [...shown].map(([id, what]) => ({ id, what }));
}
