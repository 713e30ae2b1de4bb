import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  Injector,
  afterNextRender,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { formatSmall, say } from '@hot-spline/core';
import {
  SIDES,
  conditionVerdict,
  overhaulAdvice,
  inspectPack,
  type Condition,
  type PlateSpec,
  type Side,
} from '@hot-spline/model';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { countReader, textReader } from '../shared/readers';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';
import { ConditionEditor, editCondition, type ConditionEdit } from './condition';
import { readDay, readOffer, type Offer } from './overhaul-readers';

type FaceKey = 'gearFace' | 'caseWall';
const FACES: readonly { key: FaceKey; label: string }[] = [
  { key: 'gearFace', label: 'side gear’s back face' },
  { key: 'caseWall', label: 'case wall' },
];
const CHOICES = {
  'not-inspected': 'Not inspected yet',
  'run-on': 'Run on',
  overhaul: 'Overhaul',
  replace: 'Replace',
  ask: 'Ask for prices',
} as const;

interface Seen {
  readonly anchor: string;
  readonly side: Side;
  readonly label: string;
  readonly condition: Condition | null;
  readonly change: (edit: ConditionEdit) => void;
}

/** Every piece looked at: worn against new, heat, damage, photos; then whether it runs on, is overhauled or replaced. */
@Component({
  selector: 'hs-inspect-tab',
  imports: [ConditionEditor, EntryField, Field, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './inspect-tab.html',
  styleUrl: './inspect-tab.scss',
})
export class InspectTab {
  private readonly bench = inject(Bench);
  protected readonly plate = this.bench.plates;
  protected readonly limitRange = { above: 0, max: 10, unit: 'mm' };
  protected readonly usualLimit = [0.02, 1] as const;
  private readonly packs = computed(() => this.bench.derived()?.axles[this.bench.axleName()]?.pack ?? null);
  private readonly pieces = computed(() => {
    const plate = this.plate();
    const packs = this.packs();
    return plate && packs ? inspectPack(plate, packs) : [];
  });
  protected readonly unit = computed(() => formatSmall(0, this.bench.system()).unit);
  protected readonly chosen = signal<string | null>(null);
  private readonly injector = inject(Injector);
  private readonly look = viewChild<ElementRef<HTMLElement>>('look');

  protected readonly sides = computed(() => {
    const plate = this.plate();
    const system = this.bench.system();
    return SIDES.map((side) => ({
      side,
      /** Whether the column of what was seen holds anything. */
      anySeen:
        this.pieces().some((piece) => piece.side === side && this.words(piece.member.condition) !== '') ||
        FACES.some(({ key }) => this.words(plate?.packs[side][key].condition ?? null) !== ''),
      rows: [
        ...this.pieces()
          .filter((piece) => piece.side === side)
          .map((piece) => ({
            anchor: `inspect-${side}-${piece.member.id}`,
            side,
            change: this.changeOf(side, piece.member.id),
            label: `${piece.place} ${piece.member.label}`,
            condition: piece.member.condition,
            verdict: piece.verdict,
            isNew: `new ${say(piece.newMm, 'length', system)}`,
            worn: piece.wornMm === null ? '–' : formatSmall(piece.wornMm, system).text,
            left: piece.usedShare === null ? '' : `${Math.max(0, Math.round(100 * (1 - piece.usedShare)))} %`,
            seen: this.words(piece.member.condition),
          })),
        ...FACES.map(({ key, label }) => {
          const condition = plate?.packs[side][key].condition ?? null;
          return {
            anchor: `inspect-${side}-${key}`,
            side,
            change: this.changeOf(side, key),
            label,
            condition,
            verdict: conditionVerdict(condition).verdict,
            isNew: '',
            worn: '',
            left: '',
            seen: this.words(condition),
          };
        }),
      ],
    }));
  });
  protected readonly selected = computed<Seen | null>(() => {
    const rows = this.sides().flatMap((side) => side.rows);
    return rows.find(({ anchor }) => anchor === this.chosen()) ?? null;
  });
  protected readonly advice = computed(() => {
    const plate = this.plate();
    if (!plate) return null;
    const { choice, reasons } = overhaulAdvice(plate, this.pieces());
    return { choice: CHOICES[choice], reasons };
  });

  protected readonly readNeeded = (text: string): Understood<number | null> =>
    text.trim() === '' ? { value: null, said: 'nobody waits' } : countReader('Days', 0, 3650)(text);
  protected readonly readOffer = readOffer;
  protected readonly readDay = readDay;
  protected readonly readWhy = textReader('Why', 120);

  private words(condition: Condition | null): string {
    if (!condition) return '';
    const { colour, damage, note, photos } = condition;
    return [
      ...(colour ? [colour] : []),
      ...damage,
      ...(note ? [note] : []),
      ...(photos.length ? [`${photos.length} photo${photos.length === 1 ? '' : 's'}`] : []),
    ].join(', ');
  }

  protected offerText(offer: Offer | null): string {
    return offer ? `${offer.price}; ${offer.leadDays}` : '';
  }

  protected choose(anchor: string): void {
    this.chosen.set(this.chosen() === anchor ? null : anchor);
    // The editor opens below the tables; on a low screen that is out of sight.
    afterNextRender(() => this.look()?.nativeElement.scrollIntoView({ block: 'end' }), { injector: this.injector });
  }

  /** @param at a piece by its id, or one of the faces */
  private changeOf(side: Side, at: string): (edit: ConditionEdit) => void {
    return (edit) =>
      void this.bench.changePlate((plate) => {
        const pack = plate.packs[side];
        const face = FACES.find(({ key }) => key === at);
        const of = face ? pack[face.key] : pack.members.find(({ id }) => id === at);
        if (of) editCondition(of, edit);
      });
  }

  protected setLimit({ entry }: TakenEntry): void {
    this.change((plate) => (plate.wearLimit = entry));
  }

  protected setOffer(which: 'overhaul' | 'replace', offer: Offer | null): void {
    this.change((plate) => (plate.offers[which] = offer));
  }

  protected setNeeded(days: number | null): void {
    this.change((plate) => (plate.neededInDays = days));
  }

  protected setRecheck(on: string | null): void {
    this.change((plate) => (plate.recheck = on === null ? null : { on, why: plate.recheck?.why ?? '' }));
  }

  protected setWhy(why: string): void {
    this.change((plate) => {
      if (plate.recheck) plate.recheck.why = why;
    });
  }

  private change(recipe: (plate: PlateSpec) => void): void {
    this.bench.changePlate(recipe);
  }
}
