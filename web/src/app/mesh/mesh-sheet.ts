import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  InputError,
  MESH_LIMITS,
  backlashRound,
  meshMap,
  parseEntry,
  say,
  saySmall,
  type Entry,
  type MeshJob,
  type Suspect,
} from '@hot-spline/core';
import {
  SCHOOLS,
  USUAL_SCHOOLS,
  capital,
  meshFigures,
  patternBands,
  setupSubjects,
  type FlankPattern,
  type GaugeSent,
} from '@hot-spline/model';
import { Library } from '../state/library';
import { activeTab } from '../shared/active-tab';
import { attempt } from '../shared/attempt';
import { Drafts } from '../shared/drafts';
import { Field, type GaugeOffer, type Understood } from '../shared/field';
import { PracticeTruth } from './practice-truth';
import { FigureButton } from '../shared/figure-button';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { SheetHead } from '../shared/sheet-head';
import { ReadBy } from '../state/read-by';
import { ShimPlay } from '../section/shim-play';
import { Tabs } from '../shared/tabs';
import { Advisor } from './advisor';
import { BacklashRing } from './backlash-ring';
import { BeginPanel } from './begin-panel';
import { Flank } from './flank';
import { packSums, planOf } from './next-assembly';
import { pieceRows, proposedOf } from './next-pieces';
import { SUSPECT_WORDS, nextSays } from './next-words';
import { CENTRED } from './patch';
import { SetUp } from './set-up';
import { SetUpMap } from './set-up-map';
import { MESH_TABS } from './tabs';
import { TrialStrip } from './trial-strip';
import { TriesTable } from './tries-table';

/** One reading, or all of them apart by semicolons. */
interface Places {
  readonly entries: readonly Entry[];
}

/** A place that was read, and what a gauge sent for it. */
interface Place {
  readonly entry: Entry;
  readonly gauge?: GaugeSent;
}

type SeenAt = 'all' | '1' | '2' | '3' | '4';
const SEEN: readonly { readonly value: SeenAt; readonly label: string }[] = [
  { value: 'all', label: 'alike all round' },
  { value: '1', label: 'place 1' },
  { value: '2', label: '2' },
  { value: '3', label: '3' },
  { value: '4', label: '4 of 4' },
];

/** What gauges sent for a whole round: made up anywhere, made up all round. */
function sentForAll(places: readonly Place[]): GaugeSent | null {
  const sent = places.flatMap(({ gauge }) => (gauge ? [gauge] : []));
  const last = sent.at(-1);
  return last
    ? {
        ...last,
        lines: places.map(({ gauge }) => gauge?.lines[0] ?? ''),
        simulated: sent.some(({ simulated }) => simulated),
      }
    : null;
}

/** Backlash round the ring, the pattern on both flanks, the map and the next move. */
@Component({
  selector: 'hs-mesh-sheet',
  imports: [
    BacklashRing,
    BeginPanel,
    Field,
    FigureButton,
    Flank,
    Radios,
    RouterLink,
    SetUpMap,
    SheetHead,
    ShimPlay,
    Tabs,
    TrialStrip,
    TriesTable,
  ],
  providers: [Advisor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mesh-sheet.html',
  styleUrls: ['../shared/sheet.scss', './mesh-sheet.scss'],
})
export class MeshSheet {
  /** From the address. */
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly setUp = inject(SetUp);
  protected readonly bench = this.setUp.bench;
  protected readonly advisor = inject(Advisor);
  private readonly drafts = inject(Drafts);
  private readonly readBy = inject(ReadBy);
  private readonly truth = inject(PracticeTruth);
  /** On a practice axle the patches are seen once the ring is painted and turned. */
  protected readonly paints = computed(() => this.truth.pattern() !== null);
  protected readonly tabs = MESH_TABS;
  protected readonly active = activeTab(MESH_TABS, this.tab);
  protected readonly figures = meshFigures;
  protected readonly mesh = this.setUp.mesh;
  protected readonly axle = this.setUp.axle;
  protected readonly now = computed(() => this.mesh()?.now ?? null);
  protected readonly title = computed(() => {
    const number = this.now()?.number;
    if (number === undefined) return this.setUp.asItCame() ? 'As it came.' : 'Nothing put together yet.';
    return number === 0 ? 'As it came.' : `Assembly ${number}${this.setUp.stage() === 'final' ? ', final' : ''}.`;
  });

  // Backlash, place by place.
  private readonly subjectOf = computed(() => ({
    axle: this.axle(),
    assembly: String(this.setUp.number()),
    stage: this.setUp.stage(),
  }));
  private readonly draftKey = computed(() => {
    const { axle, assembly, stage } = this.subjectOf();
    return `${this.bench.editor().id ?? ''}.places.${axle}.${assembly}.${stage}`;
  });
  /** Places read so far of a round that is not finished, each with what its gauge sent; kept over a reload. */
  protected readonly partial = linkedSignal<readonly Place[]>(() => {
    const kept = this.drafts.read(this.draftKey());
    return kept === null ? [] : (JSON.parse(kept) as Place[]);
  });
  protected readonly places = computed(() => this.setUp.setup()?.places ?? 8);
  /** What was read of what is in now; before its shims are known, of what came. */
  private readonly seen = computed(() => {
    const [now, stage] = [this.now(), this.setUp.stage()];
    return now ? { backlash: now.backlash[stage], pattern: now.pattern[stage] } : (this.mesh()?.came ?? null);
  });
  protected readonly read = computed(() => this.seen()?.backlash ?? null);
  private readonly partialMm = computed(() =>
    this.partial().map(({ entry }) => parseEntry(entry.typed, this.rules()).base),
  );
  private readonly rules = computed(() => ({
    field: 'Backlash',
    quantity: 'length' as const,
    scale: 'small' as const,
    range: MESH_LIMITS.backlashMm,
    system: this.bench.system(),
  }));
  protected readonly shownMm = computed(() => (this.partial().length > 0 ? this.partialMm() : (this.read()?.mm ?? [])));
  protected readonly shownPlaces = computed(() =>
    this.partial().length > 0 ? this.places() : (this.read()?.mm.length ?? this.places()),
  );
  protected readonly wave = computed(() => {
    const mm = this.shownMm();
    if (mm.length < 4 || mm.length < this.shownPlaces()) return null;
    const { meanMm, runoutAmplitudeMm, runoutAngleDeg } = backlashRound(mm, [0, 10]);
    return { meanMm, amplitudeMm: runoutAmplitudeMm ?? 0, angleDeg: runoutAngleDeg ?? 0 };
  });
  /** The band as it is wanted in this state: higher by what closing up takes. */
  protected readonly band = computed(() => {
    const mesh = this.mesh();
    if (!mesh?.band) return null;
    const up = this.setUp.stage() === 'final' ? 0 : mesh.closing.mm;
    return [mesh.band[0] + up, mesh.band[1] + up] as const;
  });
  protected readonly bandText = computed(() => {
    const [band, mesh] = [this.band(), this.mesh()];
    if (!band || !mesh) return 'no band yet';
    const small = (mm: number): string => saySmall(mm, this.bench.system());
    const up =
      mesh.closing.mm > 0 && this.setUp.stage() === 'trial' ? `, ${small(mesh.closing.mm)} up for closing` : '';
    return `${small(band[0])} to ${small(band[1])}${up}`;
  });
  /** How far the same round read before is from this one. */
  protected readonly repeats = computed(() => {
    const read = this.read();
    if (!read || read.repeats.length === 0) return '';
    const means = [read.mm, ...read.repeats].map((mm) => backlashRound(mm, [0, 10]).meanMm);
    const spread = saySmall(Math.max(...means) - Math.min(...means), this.bench.system());
    return `; read ${means.length} times, means ${spread} apart`;
  });
  protected readonly placeLabel = computed(() =>
    this.partial().length > 0 || !this.read()
      ? `Backlash, place ${this.partial().length + 1} of ${this.places()}`
      : 'Backlash, again from place 1',
  );
  protected readonly readPlaces = computed(() => {
    const rules = this.rules();
    const left = this.places() - this.partial().length;
    return (text: string): Understood<Places> => {
      const parts = text.split(';').map((part) => part.trim());
      if (parts.length > left)
        throw new InputError('Backlash', `Backlash has ${parts.length} readings.`, `1 to ${left}, apart by ;`);
      const read = parts.map((part) => parseEntry(part, rules));
      const said = read.map(({ base }) => `${saySmall(base, 'inch')} = ${saySmall(base, 'metric')}`);
      const wild = read.find(({ base }) => base > 1.5);
      return {
        value: { entries: read.map(({ entry }) => entry) },
        said: read.length > 3 ? `${read.length} readings` : said.join('; '),
        ...(wild
          ? {
              ask: `${say(wild.base, 'length', this.bench.system())} is far from what backlash is. Write it all the same?`,
            }
          : {}),
      };
    };
  });

  /** What a gauge reads there: the places that are left. */
  protected readonly gauge = computed<GaugeOffer>(() => {
    const [low, high] = this.band() ?? [0.15, 0.25];
    const places = this.places();
    const usual = Array.from(
      { length: places },
      (_, i) => (low + high) / 2 + 0.1 * (high - low) * Math.cos((2 * Math.PI * i) / places),
    );
    const truth = this.truth.backlash() ?? usual;
    const left = truth.slice(this.partial().length);
    return { quantity: 'length', scale: 'small', truth: left, many: left.length };
  });

  protected take({ entries }: Places): void {
    // Kept as it will be understood later too, whatever the units are then.
    const { gauge } = this.readBy;
    const read = entries.map((entry, i): Place => ({
      entry: withUnit(entry),
      ...(gauge ? { gauge: { ...gauge, lines: [gauge.lines[i] ?? ''] } } : {}),
    }));
    const all = [...this.partial(), ...read];
    if (all.length < this.places()) return this.keepPartial(all);
    this.setUp.record(
      setupSubjects.backlash.of(this.subjectOf()),
      { of: 'places', entries: all.map(({ entry }) => entry) },
      this.setUp.instrument('backlash'),
      { gauge: sentForAll(all) },
    );
    this.keepPartial([]);
  }

  protected backOne(): void {
    this.keepPartial(this.partial().slice(0, -1));
  }

  private keepPartial(places: readonly Place[]): void {
    this.partial.set(places);
    this.drafts.write(this.draftKey(), places.length > 0 ? JSON.stringify(places) : null);
  }

  // Pattern, dragged to where it was seen.
  private readonly patternKey = computed(() => {
    const { axle, assembly, stage } = this.subjectOf();
    const at = this.seenAt() === 'all' ? '' : `.${this.seenAt()}`;
    return `${this.bench.editor().id ?? ''}.pattern.${axle}.${assembly}.${stage}${at}`;
  });
  /** Where round the ring it is seen: alike everywhere, or place by place where it differs. */
  protected readonly seenAt = linkedSignal<string, SeenAt>({ source: () => this.draftKey(), computation: () => 'all' });
  protected readonly seenOptions = SEEN;
  private readonly patternSubject = computed(() => {
    const place = this.seenAt();
    const keys = this.subjectOf();
    return place === 'all' ? setupSubjects.pattern.of(keys) : setupSubjects.patternAt.of({ ...keys, place });
  });
  private readonly written = computed(() => {
    if (this.seenAt() === 'all') return this.seen()?.pattern ?? null;
    const value = this.bench.readingOf(this.patternSubject())?.value;
    return value?.of === 'pattern' ? { value } : null;
  });
  /** What is being laid out and not written yet; kept over a reload. */
  protected readonly draft = linkedSignal<{ drive: FlankPattern | null; coast: FlankPattern | null } | null>(() => {
    const kept = this.drafts.read(this.patternKey());
    return kept === null ? null : (JSON.parse(kept) as { drive: FlankPattern | null; coast: FlankPattern | null });
  });
  protected readonly drive = computed(() => this.draft()?.drive ?? this.written()?.value.drive ?? null);
  protected readonly coast = computed(() => this.draft()?.coast ?? this.written()?.value.coast ?? null);
  protected readonly bands = computed(() => patternBands(this.mesh()?.loadedFlank ?? 'convex'));
  protected readonly patternReady = computed(
    () => this.draft() !== null && this.drive() !== null && this.coast() !== null,
  );
  protected readonly faint = computed(() => this.setUp.state()?.drag === 'light');

  protected lay(flank: 'drive' | 'coast', patch: FlankPattern): void {
    const draft = { drive: this.drive(), coast: this.coast(), [flank]: patch };
    this.draft.set(draft);
    this.drafts.write(this.patternKey(), JSON.stringify(draft));
  }

  /** Lays the patches as they are seen on a practice axle. */
  protected paint(): void {
    const seen = this.truth.pattern();
    if (!seen) return;
    this.lay('drive', seen.drive);
    this.lay('coast', seen.coast);
  }

  /** As this shop does it, and as it was said since. */
  private readonly library = inject(Library);
  protected readonly paintOptions = SCHOOLS.pattern.options;
  protected readonly paintedWith = linkedSignal(() => this.library.schools()?.pattern ?? USUAL_SCHOOLS.pattern);

  protected writePattern(): void {
    const [drive, coast] = [this.drive() ?? CENTRED, this.coast() ?? CENTRED];
    this.setUp.record(
      this.patternSubject(),
      { of: 'pattern', drive, coast },
      this.paintOptions.find(({ value }) => value === this.paintedWith())?.label ?? '',
    );
    this.dropPattern();
    // Place by place, once begun: the next one.
    const next = SEEN.findIndex(({ value }) => value === this.seenAt()) + 1;
    if (this.seenAt() !== 'all') this.seenAt.set(SEEN[next]?.value ?? '4');
  }

  /** What is laid goes along to the place that is chosen. */
  protected seeAt(place: SeenAt): void {
    const draft = this.draft();
    this.dropPattern();
    this.seenAt.set(place);
    if (!draft) return;
    this.draft.set(draft);
    this.drafts.write(this.patternKey(), JSON.stringify(draft));
  }

  protected dropPattern(): void {
    this.draft.set(null);
    this.drafts.write(this.patternKey(), null);
  }

  // The map repaints while a patch is dragged: the job with what is laid out.
  private readonly draftJob = computed<MeshJob | null>(() => {
    const job = this.advisor.job();
    const draft = this.draft();
    const last = job?.tries.at(-1);
    if (!job || !last || !draft || this.mesh()?.tries.at(-1) !== this.setUp.number()) return job;
    const patch = (flank: FlankPattern | null, was: typeof last.drive) => (flank ? { u: flank.u, v: flank.v } : was);
    const tries = [
      ...job.tries.slice(0, -1),
      { ...last, drive: patch(draft.drive, last.drive), coast: patch(draft.coast, last.coast) },
    ];
    return { ...job, tries };
  });
  protected readonly map = computed(() => {
    const job = this.draftJob();
    return job && job.tries.some(({ backlashMm }) => backlashMm.length > 0)
      ? meshMap(job, this.advice()?.as ?? null)
      : null;
  });
  protected readonly tries = computed(() => this.mesh()?.tries ?? []);
  protected readonly nextNumber = computed(() => this.setUp.number() + 1);
  protected readonly advice = this.advisor.advice;
  protected readonly refused = computed(() => {
    const answer = this.advisor.answer();
    return answer?.kind === 'refused' ? answer.message : null;
  });

  protected readonly plan = attempt(() => {
    const [mesh, next] = [this.mesh(), this.advice()?.next];
    return mesh?.now && next ? planOf(mesh, next, this.setUp.stock()) : null;
  });
  /** What the advisor says, in shop words: one thing to do. */
  protected readonly says = computed(() => {
    const [advice, mesh] = [this.advice(), this.mesh()];
    return advice && mesh?.now
      ? nextSays(advice, { ...mesh, now: mesh.now }, { system: this.bench.system(), taught: this.advisor.taught() })
      : null;
  });
  /** What goes in: the pinion’s shim first and biggest, then both sides. */
  protected readonly pieces = computed(() => {
    const [plan, mesh] = [this.plan.value(), this.mesh()];
    return plan && mesh?.now ? pieceRows(plan, { ...mesh, now: mesh.now }, this.bench.system()) : null;
  });
  /** The same in the section: which shims are touched, and what goes where. */
  protected readonly proposed = computed(() => {
    const [plan, mesh, says] = [this.plan.value(), this.mesh(), this.says()];
    if (!plan || !mesh?.now || !says || says.put === 'none') return null;
    return proposedOf(plan, { ...mesh, now: mesh.now }, this.bench.system());
  });
  /** Sets what the readings say is the other way round. */
  protected turn(what: Suspect): void {
    const mesh = this.mesh();
    if (!mesh) return;
    this.setUp.change((setup) => {
      if (what === 'pinion-sign') setup.shimMoves = mesh.shimMoves === 'deeper' ? 'shallower' : 'deeper';
      if (what === 'ring-side') setup.ringSide = setup.ringSide === 'left' ? 'right' : 'left';
    });
    this.bench.decide(
      `${capital(mesh.axle)}: ${SUSPECT_WORDS[what].about}`,
      SUSPECT_WORDS[what].turned,
      'by the readings',
    );
  }
  private readonly shimRange = computed(
    () => {
      const shims = this.mesh()?.assemblies.map(({ pinionMm }) => pinionMm) ?? [];
      return [Math.max(0, Math.min(...shims) - 0.5), Math.max(...shims) + 0.5] as const;
    },
    { equal: (a, b) => a[0] === b[0] && a[1] === b[1] },
  );
  /** A bolder move, where it is worth what it teaches. */
  protected readonly bold = computed(() => {
    const [bold, mesh] = [this.advisor.bold(), this.mesh()];
    const now = mesh?.now;
    if (!bold || !mesh || !now) return null;
    const system = this.bench.system();
    const ring = bold.move.ringShiftMm - now.ringMm;
    const move =
      Math.abs(ring) < 0.004
        ? 'ring stays'
        : `ring ${saySmall(Math.abs(ring), system)} ${ring > 0 ? 'toward the pinion' : 'away'}`;
    const percent = (chance: number): number => Math.round(100 * chance);
    return {
      move: bold.move,
      text: `Bolder, for what it teaches of this axle: shim ${saySmall(bold.move.pinionShimMm, system)}, ${move}: in band within two assemblies ${percent(bold.chanceWithinTwo)} %, the plain way ${percent(bold.plainWithinTwo)} %.`,
    };
  });

  private readonly boldPlan = attempt(() => {
    const [bold, mesh] = [this.bold(), this.mesh()];
    return bold && mesh ? planOf(mesh, bold.move, this.setUp.stock()) : null;
  });

  protected planBold(): void {
    this.setUp.plan(this.boldPlan.value());
  }

  /** Sums that the drawer can build, as ticks on the map; nothing where any shim can be had. */
  protected readonly buildable = computed(() => packSums(this.setUp.stock().pinion, this.shimRange()));
  /** What is still to be read before there is anything to say. */
  protected readonly missing = computed(() => {
    const mesh = this.mesh();
    if (!mesh) return '';
    if (mesh.construction === 'electric-reduction') return 'No depth to set here: one shim sets preload and float.';
    if (!mesh.band) return 'The backlash band is missing.';
    if (!mesh.shimMoves)
      return 'Say on the baseline which way the shim moves the pinion here: a box shaft has no usual way.';
    if (!mesh.now) return 'Put it together first.';
    if (mesh.job) return 'Working it out…';
    if (mesh.now.number === 0 && mesh.setup.gears === 'new')
      return 'New gears: what is learned begins with the first assembly.';
    if (this.read()?.state.sidePreload === 'none') return 'Read without side preload: it teaches nothing.';
    return 'Read backlash round the ring, then the pattern.';
  });
  constructor() {
    inject(Library).open();
    jumpTo(this.at, () => ({ tab: this.active() }));
  }

  /** Lays the move out for the Carrier sheet, where it is put together. */
  protected planNext(): void {
    this.setUp.plan(this.plan.value());
  }
}

/** An entry whose text says its unit, so that it is read the same in whatever system. */
const withUnit = (entry: Entry): Entry =>
  entry.unit === '' || /[a-z"″”]/i.test(entry.typed) ? entry : { ...entry, typed: `${entry.typed} ${entry.unit}` };
