import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  ARRANGEMENTS,
  BOX_LIMITS,
  BOX_PIECES,
  LIMITS,
  entryBase,
  entryOf,
  isReverse,
  type Arrangement,
  type BoxPieceKind,
  type BoxShaft,
  type Entry,
  type NumberRange,
} from '@hot-spline/core';
import {
  CASE_ALLOYS,
  FITS,
  freshId,
  newPair,
  lastRunOf,
  pieceName,
  takeGears,
  unrun,
  type BoxInside,
  type BoxPairSpec,
  type BoxPieceSpec,
  type BoxShaftSpec,
  type CaseAlloy,
} from '@hot-spline/model';
import { Assumed } from '../shared/assumed';
import { Choice } from '../shared/choice';
import { EntryField } from '../shared/entry-field';
import { Field } from '../shared/field';
import { countReader, numberReader, reverseTeethReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { Library } from '../state/library';
import { BoxBench, SHAFTS } from './box-bench';

type LengthKey = 'centre' | 'dogGap' | 'hubPlay';
type ShaftLength = 'from' | 'length' | 'between' | 'runOut';
interface LengthField<K> {
  readonly key: K;
  readonly name: string;
  readonly label: string;
  readonly range: NumberRange;
  readonly small: boolean;
}

const LENGTHS: readonly LengthField<LengthKey>[] = [
  { key: 'centre', name: 'box-centre', label: 'Centre distance', range: BOX_LIMITS.centreMm, small: false },
  { key: 'dogGap', name: 'box-dog-gap', label: 'Dogs apart in neutral', range: BOX_LIMITS.floatMm, small: true },
  { key: 'hubPlay', name: 'box-hub-play', label: 'Most play of a hub', range: BOX_LIMITS.floatMm, small: true },
];
const SHAFT_LENGTHS: readonly LengthField<ShaftLength>[] = [
  { key: 'from', name: 'box-from', label: 'Shoulder at', range: BOX_LIMITS.placeMm, small: false },
  { key: 'length', name: 'box-length', label: 'Shoulder to nut or clip', range: BOX_LIMITS.lengthMm, small: false },
  { key: 'between', name: 'box-between', label: 'Between its bearings', range: BOX_LIMITS.lengthMm, small: false },
  { key: 'runOut', name: 'box-run-out-limit', label: 'Run-out at most', range: BOX_LIMITS.floatMm, small: true },
];
const HELD: Readonly<Record<Arrangement, string>> = {
  X: 'by the case, from outside (X)',
  O: 'cups back to back (O)',
  'one-end': 'at one end',
};
const ENDS = [
  { value: 'engine', label: 'engine end' },
  { value: 'far', label: 'far end' },
] as const;
const or = <T extends string>(nobody: string, options: readonly { value: T; label: string }[]) => [
  { value: '' as T | '', label: nobody },
  ...options,
];
const FIT_WORDS = { slide: 'slides', press: 'pressed', warm: 'warmed' } as const;

/** What is inside the box: what is the same for all of it, every pair, both shafts piece by piece. */
@Component({
  selector: 'hs-box-inside',
  imports: [Assumed, Choice, EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './inside-tab.html',
  styleUrl: './inside-tab.scss',
})
export class InsideTab {
  protected readonly box = inject(BoxBench);
  protected readonly bench = this.box.bench;
  private readonly library = inject(Library);
  protected readonly shafts = SHAFTS;
  protected readonly lengths = LENGTHS;
  protected readonly shaftLengths = SHAFT_LENGTHS;
  protected readonly helixRange = BOX_LIMITS.helixDeg;
  protected readonly pressureRange = BOX_LIMITS.pressureAngleDeg;
  protected readonly overlapRange = { min: 1, max: 100, unit: '%' };
  protected readonly widthRange = BOX_LIMITS.lengthMm;
  protected readonly smallRange = BOX_LIMITS.floatMm;
  protected readonly dogRange = BOX_LIMITS.widthDeg;
  protected readonly torqueRange = { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' };
  protected readonly alloys = or(
    'not said',
    Object.entries(CASE_ALLOYS).map(([value, { label, expansion }]) => ({
      value: value as CaseAlloy,
      label: `${label}, ${(expansion * 1e6).toFixed(1)} · 10⁻⁶/K`,
    })),
  );
  protected readonly held = or(
    'not said',
    ARRANGEMENTS.map((value) => ({ value, label: HELD[value] })),
  );
  protected readonly hands = or('not said', [
    { value: 'right', label: 'right-hand' },
    { value: 'left', label: 'left-hand' },
  ] as const);
  protected readonly ends = or('not said', ENDS);
  protected readonly closings = [
    { value: 'nut', label: 'a nut' },
    { value: 'clip', label: 'a clip' },
  ] as const;
  protected readonly kinds = BOX_PIECES.map((value) => ({ value, label: value }));
  protected readonly fits = FITS.map((value) => ({ value, label: FIT_WORDS[value] }));
  protected readonly readTeeth = countReader('Teeth', LIMITS.teeth.min, LIMITS.teeth.max);
  protected readonly readShift = numberReader('Shifts together', BOX_LIMITS.shiftSum);
  /** A module is millimetres by its name, whatever else is in inches. */
  protected readonly readModule = numberReader('Normal module', { min: 0.1, max: BOX_LIMITS.normalModuleMm.max });
  protected readonly readHours = numberReader('Hours', { min: 1, max: 1e5 });
  protected readonly readRise = numberReader('Warmer by', BOX_LIMITS.riseK);
  protected readonly readCount = countReader('Dogs', BOX_LIMITS.dogs.min, BOX_LIMITS.dogs.max);
  protected readonly readFace = textReader('Which face', 80);
  protected readonly readName = textReader('Name', 40);
  protected readonly readWhy = textReader('Why', 80);
  protected readonly readPair = reverseTeethReader('Teeth of reverse');
  protected readonly inside = this.box.inside;
  protected readonly open = signal<string | null>(null);

  protected readonly pairs = computed(() => {
    const inside = this.inside();
    return inside?.pairs.map((pair) => ({ ...pair, name: this.box.name(pair) })) ?? [];
  });
  protected readonly pairOptions = computed(() => this.pairs().map(({ id, name }) => ({ value: id, label: name })));
  protected readonly stacks = computed(() => {
    const [inside, judged] = [this.inside(), this.box.state()?.judged];
    if (!inside) return [];
    return SHAFTS.map(({ shaft, name }) => ({
      shaft,
      name,
      spec: inside.shafts[shaft],
      spare: judged?.shafts[shaft].spareMm ?? null,
      pieces: inside.shafts[shaft].pieces.map((piece) => ({ piece, name: pieceName(inside, piece) })),
    }));
  });
  protected readonly moduleMm = computed(() => {
    const module = this.inside()?.module;
    return module ? Number(entryBase(module).toFixed(4)) : null;
  });
  protected readonly helical = computed(() => (this.inside()?.helix.value ?? 0) !== 0);

  /** Gearboxes of the library that somebody described from inside. */
  protected readonly known = computed(() =>
    this.library
      .active()
      .flatMap(({ id, spec }) => (spec.kind === 'gearbox' && spec.inside ? [{ value: id, label: spec.name }] : [])),
  );

  protected take(id: string): void {
    const found = this.library.active().find((one) => one.id === id)?.spec;
    if (found?.kind !== 'gearbox' || !found.inside) return;
    const inside = unrun(structuredClone(found.inside) as BoxInside, lastRunOf(this.bench.readings()));
    this.bench.change((draft) => {
      draft.box = inside;
      takeGears(draft);
    });
  }

  /** Kept under the build’s name, as a gearbox of the shop’s own. */
  protected keep(): void {
    const [build, inside] = [this.bench.build(), this.box.kept()];
    if (!build || !inside) return;
    this.library.add({
      kind: 'gearbox',
      name: `Box of ${build.name}`,
      box: { value: build.gearbox.kind, origin: 'said' },
      torqueLimit: null,
      gears: build.gearbox.gears.map(({ name, ratio }) => ({ name, ratio, origin: 'said' as const })),
      inside: unrun(inside, 0),
    });
  }

  protected set(change: Partial<BoxInside>): void {
    this.box.change((inside) => Object.assign(inside, change));
  }

  protected setModule(mm: number | null): void {
    if (mm !== null) this.set({ module: entryOf(mm, 'mm') });
  }

  protected setLength(key: LengthKey, entry: Entry | null): void {
    this.set({ [key]: entry });
  }

  protected setShaftLength(shaft: BoxShaft, key: ShaftLength, entry: Entry | null): void {
    this.box.changeShaft(shaft, { [key]: entry });
  }

  protected setFloat(shaft: BoxShaft, key: 'low' | 'high', entry: Entry): void {
    const band = this.inside()?.shafts[shaft].float ?? { low: entry, high: entry };
    this.box.changeShaft(shaft, { float: { ...band, [key]: entry } });
  }

  protected setShaft(shaft: BoxShaft, change: Partial<BoxShaftSpec>): void {
    this.box.changeShaft(shaft, change);
  }

  protected setDogs(change: Partial<NonNullable<BoxInside['dogs']>>): void {
    const now = this.inside()?.dogs ?? { count: 1, ring: null, gear: null };
    this.set({ dogs: { ...now, ...change } });
  }

  protected setPair(id: string, change: Partial<BoxPairSpec>): void {
    this.bench.change((draft) => {
      const pair = draft.box?.pairs.find((one) => one.id === id);
      if (!pair) return;
      Object.assign(pair, change);
      if (change.driver !== undefined || change.driven !== undefined || change.constant !== undefined) takeGears(draft);
    });
  }

  protected setPiece(shaft: BoxShaft, id: string, change: Partial<BoxPieceSpec>): void {
    this.box.change((inside) => {
      const piece = inside.shafts[shaft].pieces.find((one) => one.id === id);
      if (piece) Object.assign(piece, change);
    });
  }

  /** What is no gear is of no pair, and turns with its shaft. A collar parts the stack: what closes the pieces before it is a stand-in. */
  protected setKind(shaft: BoxShaft, id: string, kind: BoxPieceKind): void {
    const first = this.inside()?.pairs[0]?.id ?? null;
    const path = `box.shafts.${shaft}.before`;
    this.bench.change((draft) => {
      const of = draft.box?.shafts[shaft];
      const piece = of?.pieces.find((one) => one.id === id);
      if (!of || !piece) return;
      if (kind === 'collar' && of.pieces.some((one) => one.kind === 'collar')) return;
      const was = piece.kind;
      Object.assign(
        piece,
        kind === 'gear' ? { kind, pair: first } : { kind, pair: null, loose: false, sleeve: null, dogs: null },
      );
      if (kind === 'collar') {
        const sum = of.pieces
          .slice(0, of.pieces.indexOf(piece))
          .reduce((all, one) => all + entryBase(one.sleeve ?? one.width), 0);
        of.before = {
          length: entryOf(Math.max(1, Number((sum - 0.1).toFixed(2))), 'mm'),
          closed: 'nut',
          nutTorque: null,
        };
        if (!draft.assumed.includes(path)) draft.assumed.push(path);
      } else if (was === 'collar') of.before = null;
    });
  }

  protected setBefore(shaft: BoxShaft, change: Partial<NonNullable<BoxShaftSpec['before']>>): void {
    const before = this.inside()?.shafts[shaft].before;
    if (before) this.box.changeShaft(shaft, { before: { ...before, ...change } });
  }

  /** Kinds that a piece may become: one collar a shaft. */
  protected kindsOf(spec: BoxShaftSpec, piece: BoxPieceSpec) {
    return this.kinds.filter(
      ({ value }) => value !== 'collar' || !spec.pieces.some((one) => one.kind === 'collar' && one !== piece),
    );
  }

  protected readonly hasReverse = computed(() => this.inside()?.pairs.some(isReverse) ?? false);

  /** Reverse, by its teeth: its gears are put on the shafts piece by piece. */
  protected reverse(teeth: { readonly driver: number; readonly driven: number; readonly idler: number }): void {
    this.box.change((inside) => {
      const taken = [...inside.pairs, ...inside.wearing].map(({ id }) => id);
      inside.pairs.push({ ...newPair(freshId(taken, 'reverse'), teeth), idler: teeth.idler });
    });
  }

  protected removePair(id: string): void {
    this.box.change((inside) => {
      inside.pairs = inside.pairs.filter((one) => one.id !== id);
      for (const { shaft } of SHAFTS)
        inside.shafts[shaft].pieces = inside.shafts[shaft].pieces.filter(({ pair }) => pair !== id);
    });
  }

  protected remove(shaft: BoxShaft, id: string): void {
    this.box.change((inside) => {
      const of = inside.shafts[shaft];
      of.pieces = of.pieces.filter((one) => one.id !== id);
      if (!of.pieces.some(({ kind }) => kind === 'collar')) of.before = null;
      if (inside.drum) inside.drum.tracks = inside.drum.tracks.filter(({ hub }) => hub !== id);
      if (inside.drum?.tracks.length === 0) inside.drum = null;
    });
  }

  protected move(shaft: BoxShaft, index: number, by: 1 | -1): void {
    this.box.change((inside) => {
      const { pieces } = inside.shafts[shaft];
      const [one] = pieces.splice(index, 1);
      if (one) pieces.splice(index + by, 0, one);
    });
  }

  /** Its width is a stand-in until somebody says it. */
  protected add(shaft: BoxShaft): void {
    const path = `box.shafts.${shaft}.pieces`;
    this.bench.change((draft) => {
      const inside = draft.box;
      if (!inside) return;
      if (!draft.assumed.includes(path)) draft.assumed.push(path);
      const taken = [...inside.shafts.driving.pieces, ...inside.shafts.driven.pieces].map(({ id }) => id);
      inside.shafts[shaft].pieces.push({
        id: freshId(taken, 'piece'),
        kind: 'spacer',
        name: '',
        width: entryOf(1, 'mm'),
        pair: null,
        loose: false,
        cut: false,
        cutWhy: '',
        sleeve: null,
        dogs: null,
        ring: null,
        fit: 'slide',
        oiled: true,
        face: '',
      });
    });
    // Where the pieces were stand-ins before, the change itself has settled them.
    if (!this.bench.build()?.assumed.includes(path)) this.bench.change((draft) => draft.assumed.push(path));
  }

  protected text(value: number | null): string {
    return value === null ? '' : String(value);
  }
}
