import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router } from '@angular/router';
import {
  InputError,
  LIMITS,
  MESH_LIMITS,
  entryBase,
  formatIn,
  say,
  saySmall,
  unitLabel,
  type SectionPart,
} from '@hot-spline/core';
import { depthSchools, stackError, type Setup } from '@hot-spline/model';
import { Library } from '../state/library';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { ShimPlay } from '../section/shim-play';
import { SheetHead } from '../shared/sheet-head';
import { Advisor } from './advisor';
import { BeginPanel } from './begin-panel';
import { packFrom, planOf } from './next-assembly';
import { SetUp } from './set-up';

type Depth = Setup['depth'];
type EntryKey = Exclude<keyof Depth, 'chain'>;

/** The pinion shim by every school side by side, and the pack for it from the drawer. */
@Component({
  selector: 'hs-depth-sheet',
  imports: [BeginPanel, Choice, EntryField, Field, RemoveButton, SheetHead, ShimPlay],
  providers: [Advisor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './depth-sheet.html',
  styleUrls: ['../shared/sheet.scss', './depth-sheet.scss'],
})
export class DepthSheet {
  readonly at = input<string>();
  protected readonly setUp = inject(SetUp);
  private readonly advisor = inject(Advisor);
  private readonly router = inject(Router);
  protected readonly axle = this.setUp.axle;
  protected readonly mesh = this.setUp.mesh;
  /** What moves the pinion. */
  protected readonly headParts: readonly SectionPart[] = ['pinion-shim', 'head-bearing', 'case'];
  protected readonly depth = computed(() => this.setUp.setup()?.depth ?? null);
  protected readonly marks = MESH_LIMITS.markMm;
  protected readonly heights = MESH_LIMITS.heightMm;
  protected readonly shims = MESH_LIMITS.shimMm;
  protected readonly lengths = MESH_LIMITS.lengthMm;
  protected readonly caps = { min: 0, max: LIMITS.diameterMm.max, unit: 'mm' } as const;
  protected readonly readings = { above: 0, max: 1000, unit: 'mm' } as const;
  protected readonly readName = textReader('Name', 40, 1);
  protected readonly signs = [
    { value: 'plus', label: '+' },
    { value: 'minus', label: '−' },
  ] as const;

  protected readonly moves = computed(() => {
    const moves = this.mesh()?.shimMoves;
    return moves ? `Here more shim moves the pinion ${moves}.` : 'No depth to set: centre distance is fixed.';
  });
  protected readonly schools = computed(() => {
    const mesh = this.mesh();
    if (!mesh) return [];
    const system = this.setUp.bench.system();
    const stock = this.advisor.pinionStock();
    return depthSchools(mesh).map((school) => {
      const { shimMm } = school;
      const pack = shimMm === null ? null : packFrom(shimMm, stock);
      return {
        ...school,
        shim: shimMm === null ? '–' : formatIn(shimMm, 'length', system, undefined, 'small').text,
        unit: unitLabel(formatIn(1, 'length', system, undefined, 'small').unit),
        other: shimMm === null ? '' : say(shimMm, 'length', system === 'inch' ? 'metric' : 'inch'),
        pack: pack
          ? `${pack.piecesMm.map((mm) => saySmall(mm, system)).join(' + ')}${Math.abs(pack.errorMm) > 0.0005 ? `, ${saySmall(pack.errorMm, system)} ${pack.errorMm > 0 ? 'over' : 'under'}` : ''}`
          : '',
        usual: school.school === 'came-out' || school.school === 'marks',
      };
    });
  });
  protected readonly apart = computed(() => {
    const found = this.schools().flatMap(({ shimMm }) => (shimMm === null ? [] : [shimMm]));
    if (found.length < 2) return '';
    return `They are ${saySmall(Math.max(...found) - Math.min(...found), this.setUp.bench.system())} apart.`;
  });
  protected readonly stack = computed(() => {
    const mesh = this.mesh();
    const error = mesh && stackError(mesh);
    return error
      ? `By the shaft stack the pinion sits ${saySmall(error.deeperMm, this.setUp.bench.system())} ${error.deeperMm > 0 ? 'deeper' : 'shallower'} than it did: ${error.parts}.`
      : null;
  });

  protected readonly setsUp = computed(
    () => this.setUp.setup()?.state.pinionBearings === 'set-up' || this.depth()?.setUpTaller !== null,
  );
  private readonly kept = inject(Library).ofKind('set-up-bearing');
  protected readonly bearings = computed(() => [
    { value: '', label: '–' },
    ...this.kept().map(({ id, spec }) => ({
      value: id,
      label: `${spec.name}: ${saySmall(entryBase(spec.taller), this.setUp.bench.system())}`,
    })),
  ]);
  /** Drawers that the pinion pack can come from; the first takes any. */
  protected readonly boxes = computed(() => [
    { value: '', label: 'any drawer for the seat' },
    ...this.setUp.boxesOf().pinion.map(({ id, spec }) => ({ value: id, label: spec.name })),
  ]);

  constructor() {
    inject(Library).open();
    jumpTo(this.at);
  }

  protected set(key: EntryKey, { entry }: TakenEntry): void {
    this.setUp.change(({ depth }) => (depth[key] = entry));
  }

  protected takeBearing(id: string): void {
    const bearing = this.kept().find((one) => one.id === id);
    if (bearing) this.setUp.change(({ depth }) => (depth.setUpTaller = bearing.spec.taller));
  }

  protected setDrawer(id: string): void {
    this.setUp.change(({ drawers }) => (drawers.pinion = id === '' ? null : id));
  }

  protected addLink(): void {
    this.setUp.change(({ depth }) =>
      depth.chain.push({ name: 'length', length: { typed: '0 mm', value: 0, unit: 'mm' }, sign: 'plus' }),
    );
  }

  protected setLink(index: number, change: Partial<Depth['chain'][number]>): void {
    this.setUp.change(({ depth }) => {
      const link = depth.chain[index];
      if (link) Object.assign(link, change);
    });
  }

  protected removeLink(index: number): void {
    this.setUp.change(({ depth }) => depth.chain.splice(index, 1));
  }

  /** Lays the next assembly out with this shim, the ring where it is. */
  protected take(shimMm: number): void {
    const mesh = this.mesh();
    if (!mesh) return;
    try {
      this.setUp.plan(planOf(mesh, { pinionShimMm: shimMm, ringShiftMm: mesh.now?.ringMm ?? 0 }, this.setUp.stock()));
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return this.setUp.bench.refuse(error);
    }
    void this.router.navigate(['/builds', this.setUp.bench.editor().id, 'carrier']);
  }
}
