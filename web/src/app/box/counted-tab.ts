import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { LIMITS, entryOf } from '@hot-spline/core';
import { boxSubjects, freshId, type PlaceSpec } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { countReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { VerdictMark } from '../shared/verdict';
import { BoxBench } from './box-bench';
import { FaceMap } from './face-map';
import { spotsReader, spotsText } from './spots';

type Way = 'out' | 'in';

/** A map of everything that holds the unit together: counted out, counted in, each behind what it waits for. */
@Component({
  selector: 'hs-box-counted',
  imports: [EntryField, FaceMap, Field, RemoveButton, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './counted-tab.html',
  styleUrl: './counted-tab.scss',
})
export class CountedTab {
  protected readonly box = inject(BoxBench);
  protected readonly readCount = countReader('How many', 1, 99);
  protected readonly readName = textReader('Place', 60, 1);
  protected readonly readFace = textReader('Found on', 40);
  protected readonly torqueRange = { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' };
  protected readonly letter = (index: number): string => String.fromCharCode(65 + (index % 26));
  protected readonly edited = signal<string | null>(null);
  protected readonly finding = computed(() => {
    const found = this.box.bench.derived()?.findings.find(({ id }) => id === 'box.counted');
    return found ? { ...found.say(this.box.bench.system()), verdict: found.verdict } : null;
  });

  private subject(place: string, way: Way) {
    return boxSubjects.placeCount.of({ round: String(this.box.round()?.round ?? 1), place, way });
  }

  private counted(place: string, way: Way): number | null {
    return this.box.entry(this.subject(place, way))?.value ?? null;
  }

  protected readonly faces = computed(() => {
    const inside = this.box.inside();
    if (!inside) return [];
    const state = this.box.state()?.counted;
    const rows = inside.places.map((place) => {
      const [out, back] = [this.counted(place.id, 'out'), this.counted(place.id, 'in')];
      const waitsFor = place.after
        .filter((id) => state?.out.some((one) => one.id === id))
        .map((id) => inside.places.find((one) => one.id === id)?.name ?? id);
      const wrong = state?.over.some(({ id }) => id === place.id) || state?.early.some(({ id }) => id === place.id);
      return {
        place,
        out,
        back,
        waitsFor,
        look: wrong ? 'stop' : out === null || out === 0 ? 'shut' : (back ?? 0) >= out ? 'in' : 'out',
        others: inside.places.filter(({ id }) => id !== place.id),
      };
    });
    const names = [...new Set(inside.places.map(({ face }) => face))];
    return names.map((face) => {
      const own = rows.filter(({ place }) => place.face === face);
      return {
        key: face,
        face: face === '' ? 'where nobody has said' : face,
        rows: own,
        // One bolt or two need no map.
        pieces: own.reduce((sum, { place }) => sum + place.count, 0),
      };
    });
  });

  /** All of them by one press; one at a time by the small ones. */
  protected count(place: PlaceSpec, way: Way, to: number): void {
    if (to < 0 || to > 99) return;
    this.box.bench.record(this.subject(place.id, way), entryOf(to, ''), 'By hand');
  }

  /** Touched on the map: one out, while some are in; then one in again. */
  protected touch(place: PlaceSpec): void {
    const [out, back] = [this.counted(place.id, 'out') ?? 0, this.counted(place.id, 'in') ?? 0];
    if (out < place.count && back === 0) this.count(place, 'out', out + 1);
    else if (back < out) this.count(place, 'in', back + 1);
  }

  /** The next of them, while some are not placed yet. */
  protected put(id: string, spot: readonly [number, number]): void {
    const place = this.box.inside()?.places.find((one) => one.id === id);
    if (place && place.spots.length < place.count) this.set(id, { spots: [...place.spots, [...spot]] });
  }

  /** Fewer of them take the places of the last ones with them. */
  protected setCount(place: PlaceSpec, count: number): void {
    this.set(place.id, { count, spots: place.spots.slice(0, count) });
  }

  protected readonly spotsText = spotsText;
  protected spots(place: PlaceSpec) {
    return spotsReader('Where on the face', place.count);
  }

  protected placing(rows: readonly { readonly place: PlaceSpec }[]): string | null {
    const id = this.edited();
    const place = rows.find((row) => row.place.id === id)?.place;
    return place && place.spots.length < place.count ? place.id : null;
  }

  protected set(id: string, change: Partial<PlaceSpec>): void {
    this.box.change((inside) => {
      const place = inside.places.find((one) => one.id === id);
      if (place) Object.assign(place, change);
    });
  }

  protected waits(id: string, on: string, yes: boolean): void {
    const place = this.box.inside()?.places.find((one) => one.id === id);
    if (place) this.set(id, { after: yes ? [...place.after, on] : place.after.filter((one) => one !== on) });
  }

  protected add(): void {
    this.box.change((inside) => {
      const id = freshId(
        inside.places.map((one) => one.id),
        'place',
      );
      const face = inside.places.at(-1)?.face ?? '';
      inside.places.push({
        id,
        name: `Place ${inside.places.length + 1}`,
        face,
        count: 1,
        hidden: false,
        spots: [],
        torque: null,
        after: [],
      });
      this.edited.set(id);
    });
  }

  protected remove(id: string): void {
    this.box.change((inside) => {
      inside.places = inside.places
        .filter((one) => one.id !== id)
        .map((one) => ({ ...one, after: one.after.filter((other) => other !== id) }));
    });
  }
}
