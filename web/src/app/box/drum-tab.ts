import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { BOX_LIMITS, InputError, STEEPEST_DEG, entryOf, travelAt, type Entry } from '@hot-spline/core';
import { NEW_DRUM_ASSUMED, gearPairs, hubName, type DrumSpec } from '@hot-spline/model';
import { Assumed } from '../shared/assumed';
import { EntryField } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { numberReader } from '../shared/readers';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { BoxBench, SHAFTS } from './box-bench';

const WIDE = { left: 52, right: 10, row: 84, top: 18, half: 34 } as const;
type Corner = readonly [angle: number, travel: number];

/** Reads `0 0, 12 -6`: angle and travel of each corner. */
function readCorners(text: string): Understood<[number, number][]> {
  const corners = text
    .split(',')
    .map((part) => part.trim().replaceAll('−', '-'))
    .filter((part) => part !== '')
    .map((part): [number, number] => {
      const [angle = Number.NaN, travel = Number.NaN, ...more] = part.split(/\s+/).map(Number);
      if (!Number.isFinite(angle) || !Number.isFinite(travel) || more.length > 0)
        throw new InputError('Track', `Track: “${part}” is no corner.`, 'degrees, a blank, millimetres: 12 -6');
      return [angle, travel];
    });
  return { value: corners, said: `${corners.length} corners` };
}

/** The drum unrolled: what each fork follows, where dogs touch, what is in; edited by its corners, turned by hand. */
@Component({
  selector: 'hs-box-drum',
  imports: [Assumed, EntryField, Field, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drum-tab.html',
  styleUrl: './drum-tab.scss',
})
export class DrumTab {
  protected readonly box = inject(BoxBench);
  protected readonly bench = inject(Bench);
  protected readonly radiusRange = BOX_LIMITS.radiusMm;
  protected readonly smallRange = BOX_LIMITS.floatMm;
  protected readonly readCorners = readCorners;
  protected readonly readDetents = (text: string): Understood<number[]> => {
    const value = text
      .split(',')
      .map((part) => part.trim().replaceAll('−', '-'))
      .filter((part) => part !== '')
      .map(Number);
    if (!value.every(Number.isFinite)) throw new InputError('Detents', 'Detents: degrees with commas.', '0, 50, 100');
    return { value, said: `${value.length} detents` };
  };
  protected readonly readPeriod = numberReader('Goes round after', { min: 1, max: 3600 });
  protected readonly drum = computed(() => this.box.inside()?.drum ?? null);
  protected readonly state = computed(() => this.box.state()?.drum ?? null);
  protected readonly finding = computed(() => {
    const found = this.bench
      .derived()
      ?.findings.find(({ id, place }) => id === 'box.drum' || (id.startsWith('refused.box') && place.tab === 'drum'));
    return found ? { ...found.say(this.bench.system()), verdict: found.verdict } : null;
  });
  /** Angle that the drum stands at, while it is played with; nothing of it is kept. */
  protected readonly angle = signal<number | null>(null);
  protected readonly held = signal<{ readonly hub: string; readonly index: number } | null>(null);

  private readonly span = computed(() => {
    const angles = this.drum()?.tracks.flatMap(({ points }) => points.map(([angle]) => angle)) ?? [0, 1];
    return [Math.min(...angles), Math.max(...angles)] as const;
  });
  protected readonly at = computed(() => this.angle() ?? this.drum()?.detents[0] ?? this.span()[0]);
  protected readonly size = computed(() => {
    const rows = this.drum()?.tracks.length ?? 0;
    return { width: 640, height: WIDE.top + rows * WIDE.row + 22 };
  });
  private x(angle: number): number {
    const [from, to] = this.span();
    return WIDE.left + ((angle - from) / (to - from)) * (this.size().width - WIDE.left - WIDE.right);
  }
  private readonly most = computed(() =>
    Math.max(1, ...(this.drum()?.tracks.flatMap(({ points }) => points.map(([, travel]) => Math.abs(travel))) ?? [])),
  );
  private y(row: number, travel: number): number {
    return WIDE.top + row * WIDE.row + WIDE.row / 2 - (travel / this.most()) * WIDE.half;
  }

  protected readonly picture = computed(() => {
    const [inside, drum, state, box] = [this.box.inside(), this.drum(), this.state(), this.box.state()];
    if (!inside || !drum || !box) return null;
    const touch = state?.touchMm ?? null;
    const gear = (pair: string | null): string => this.box.short(pair);
    return {
      rows: drum.tracks.map(({ hub, points }, row) => {
        const sides = state?.sides.find((one) => one.hub === hub);
        return {
          hub,
          name: hubName(inside, box.judged, hub).replace('Hub ', ''),
          y: this.y(row, 0),
          plus: gear(sides?.plus ?? null),
          minus: gear(sides?.minus ?? null),
          line: points
            .map(([angle, travel]) => `${this.x(angle).toFixed(1)},${this.y(row, travel).toFixed(1)}`)
            .join(' '),
          band: touch === null ? null : { y: this.y(row, touch), height: this.y(row, -touch) - this.y(row, touch) },
          corners: points.map(([angle, travel], index) => ({
            index,
            x: this.x(angle),
            y: this.y(row, travel),
            says: `${angle}°, ${travel} mm`,
            held: this.held()?.hub === hub && this.held()?.index === index,
          })),
          fork: this.y(row, travelAt({ name: hub, points }, this.at())),
          text: points.map(([angle, travel]) => `${angle} ${travel}`).join(', '),
        };
      }),
      both: (state?.check.both ?? []).map(([from, to]) => ({ x: this.x(from), width: this.x(to) - this.x(from) })),
      detents: drum.detents.map((angle, i) => ({ x: this.x(angle), says: gear(state?.gears[i]?.pair ?? null) || '–' })),
      cursor: this.x(this.at()),
    };
  });

  /** Each ring between the dogs of its gears, as it stands at this angle: to scale along the shaft. */
  protected readonly rings = computed(() => {
    const [inside, drum, box] = [this.box.inside(), this.drum(), this.box.state()];
    if (!inside || !drum || !box) return [];
    return drum.tracks.map(({ hub, points }) => {
      const travel = travelAt({ name: hub, points }, this.at());
      const gaps = box.judged.gaps.filter((one) => one.hub === hub);
      const scale = 4;
      const gear = (side: '+' | '-') => {
        const gap = gaps.find((one) => one.side === side);
        const number = this.box.short(gap?.pair ?? null);
        const edge = 14 + scale * (gap?.gapMm ?? 0);
        return gap ? { number, from: side === '+' ? 80 + edge : 80 - edge - 26 } : null;
      };
      return { hub, gears: [gear('-'), gear('+')].filter((one) => one !== null), x: 80 - 14 + scale * travel };
    });
  });

  /** Which gear is in at the angle where it stands. */
  protected readonly now = computed(() => {
    const [inside, drum, state] = [this.box.inside(), this.drum(), this.state()];
    if (!inside || !drum || !state) return null;
    const touched = drum.tracks.flatMap(({ hub, points }) => {
      const travel = travelAt({ name: hub, points }, this.at());
      const sides = state.sides.find((one) => one.hub === hub);
      const pair = travel > 0 ? sides?.plus : sides?.minus;
      if (Math.abs(travel) < state.touchMm || !pair) return [];
      return [{ gear: this.box.short(pair), in: Math.abs(travel) >= state.inMm }];
    });
    const [one] = touched;
    if (touched.length > 1) return `Gears ${touched.map(({ gear }) => gear).join(' and ')} touch at once`;
    if (!one) return 'Neutral';
    return one.in ? `Gear ${one.gear} is in` : `Gear ${one.gear} touches`;
  });
  protected readonly faceToFace = computed(() => {
    const dogs = this.box.state()?.dogs;
    return dogs
      ? `Dog on dog in ${(10 * dogs.chance).toFixed(0)} of 10, standing still: turn the shaft by up to ${dogs.turnDeg.toFixed(0)}° and try again. Play when in ${dogs.playDeg.toFixed(1)}°.`
      : null;
  });
  protected readonly steepest = computed(() => {
    const state = this.state();
    return state ? `Steepest ramp ${state.check.steepestDeg.toFixed(1)}°, ${STEEPEST_DEG}° at most (ours).` : '';
  });

  protected change(recipe: (drum: DrumSpec) => void): void {
    this.box.change((inside) => {
      if (inside.drum) recipe(inside.drum);
    });
  }

  protected setEntry(key: 'radius' | 'slop' | 'depth', entry: Entry): void {
    this.change((drum) => (drum[key] = entry));
  }

  protected setDetents(detents: number[]): void {
    this.change((drum) => (drum.detents = detents));
  }

  protected setPeriod(period: number | null): void {
    this.change((drum) => (drum.period = period));
  }

  protected setCorners(hub: string, points: [number, number][]): void {
    this.change((drum) => {
      const track = drum.tracks.find((one) => one.hub === hub);
      if (track) track.points = points;
    });
  }

  /** The next detent up or down, from where it stands. */
  protected step(way: 1 | -1): void {
    const detents = [...(this.drum()?.detents ?? [])].sort((a, b) => way * (a - b));
    const next = detents.find((angle) => way * (angle - this.at()) > 1e-9);
    if (next !== undefined) this.angle.set(next);
  }

  /** A corner by its picture, while it is dragged: whole degrees, tenths of a millimetre, never past its neighbours. */
  private cornerAt(event: PointerEvent, row: number, points: readonly Corner[], index: number): [number, number] {
    const into = (event.currentTarget as SVGGraphicsElement).ownerSVGElement?.getScreenCTM()?.inverse();
    const { x: px, y: py } = new DOMPoint(event.clientX, event.clientY).matrixTransform(into);
    const { width } = this.size();
    const [from, to] = this.span();
    const angle = from + ((px - WIDE.left) / (width - WIDE.left - WIDE.right)) * (to - from);
    const travel = ((WIDE.top + row * WIDE.row + WIDE.row / 2 - py) / WIDE.half) * this.most();
    const low = (points[index - 1]?.[0] ?? from - 1) + 1;
    const high = (points[index + 1]?.[0] ?? to + 1) - 1;
    const ends = index === 0 || index === points.length - 1;
    const own = points[index]?.[0] ?? 0;
    return [
      ends ? own : Math.round(Math.max(low, Math.min(high, angle))),
      Math.round(10 * Math.max(-this.most(), Math.min(this.most(), travel))) / 10,
    ];
  }

  protected hold(event: PointerEvent, hub: string, index: number): void {
    event.preventDefault();
    (event.target as Element).setPointerCapture(event.pointerId);
    this.held.set({ hub, index });
  }

  protected move(event: PointerEvent, hub: string, row: number, index: number): void {
    if (this.held()?.hub !== hub || this.held()?.index !== index) return;
    this.bench.drag((draft) => {
      const inside = draft.box;
      if (!inside?.drum) return draft;
      const tracks = inside.drum.tracks.map((track) =>
        track.hub === hub
          ? {
              ...track,
              points: track.points.map((point, i): [number, number] =>
                i === index ? this.cornerAt(event, row, track.points, index) : [point[0], point[1]],
              ),
            }
          : track,
      );
      return { ...draft, box: { ...inside, drum: { ...inside.drum, tracks } } };
    });
  }

  protected drop(hub: string): void {
    const points = this.drum()?.tracks.find((one) => one.hub === hub)?.points;
    if (!this.held()) return;
    this.held.set(null);
    if (points)
      this.setCorners(
        hub,
        points.map(([angle, travel]): [number, number] => [angle, travel]),
      );
    this.bench.drop();
  }

  protected cancel(): void {
    this.held.set(null);
    this.bench.drop();
  }

  /** The corner by arrow keys: a degree, or a tenth of a millimetre. */
  protected nudge(event: KeyboardEvent, hub: string, index: number): void {
    const by: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 0.1],
      ArrowDown: [0, -0.1],
    };
    const move = by[event.key];
    if (!move) return;
    event.preventDefault();
    this.change((drum) => {
      const point = drum.tracks.find((one) => one.hub === hub)?.points[index];
      if (!point) return;
      point[0] += move[0];
      point[1] = Math.round(10 * (point[1] + move[1])) / 10;
    });
  }

  /** A drum to begin with: every fork in neutral all the way, a detent a gear: nothing that could be taken for a drum that works. */
  protected begin(): void {
    const hubs = SHAFTS.flatMap(({ shaft }) => this.box.inside()?.shafts[shaft].pieces ?? []).filter(
      ({ kind }) => kind === 'hub',
    );
    if (hubs.length > BOX_LIMITS.tracks.max) {
      this.box.bench.refuse(
        new InputError(
          'drum.tracks',
          `${hubs.length} hubs are more than a drum has tracks.`,
          `${BOX_LIMITS.tracks.max} at most`,
        ),
      );
      return;
    }
    this.bench.change((draft) => {
      const inside = draft.box;
      if (!inside) return;
      const gears = gearPairs(inside).length;
      if (hubs.length === 0) return;
      inside.drum = {
        radius: entryOf(30, 'mm'),
        slop: entryOf(0.2, 'mm'),
        depth: entryOf(3, 'mm'),
        period: null,
        detents: Array.from({ length: gears }, (_, i) => i * 50),
        tracks: hubs.map(({ id }) => ({
          hub: id,
          points: [
            [-10, 0],
            [(gears - 1) * 50 + 10, 0],
          ],
        })),
      };
      draft.assumed.push(...NEW_DRUM_ASSUMED.filter((path) => !draft.assumed.includes(path)));
    });
  }

  protected addCorner(hub: string): void {
    const many = this.drum()?.tracks.find((one) => one.hub === hub)?.points.length ?? 0;
    if (many >= BOX_LIMITS.points.max) {
      this.box.bench.refuse(
        new InputError('drum.tracks', `The track has ${many} corners already.`, `${BOX_LIMITS.points.max} at most`),
      );
      return;
    }
    this.change((drum) => {
      const points = drum.tracks.find((one) => one.hub === hub)?.points;
      if (!points) return;
      // In the middle of its longest stretch.
      const at = points.reduce((best, [angle], i) => {
        const before = points[i - 1]?.[0] ?? angle;
        const longest = (points[best]?.[0] ?? 0) - (points[best - 1]?.[0] ?? points[best]?.[0] ?? 0);
        return angle - before > longest ? i : best;
      }, 1);
      const [a, b] = [points[at - 1], points[at]];
      if (a && b) points.splice(at, 0, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
    });
  }
}
