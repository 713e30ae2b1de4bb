import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { boxRatio, entryBase, loadedEnd, say, type Arrangement, type BoxShaft, type Entry } from '@hot-spline/core';
import {
  boxFigures,
  boxSubjects,
  freshId,
  hubName,
  lastRunOf,
  pairName,
  runsOf,
  teethText,
  type WearingSpec,
} from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { Choice } from '../shared/choice';
import { FigureButton } from '../shared/figure-button';
import { Field } from '../shared/field';
import { numberReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { VoidButton } from '../shared/void-button';
import { BoxBench, SHAFTS } from './box-bench';

const ENDS = { engine: 'engine end', far: 'far end' } as const;

/** The bearing that takes it; of a shaft that is held at one end none while nobody has said which. */
const endOf = (force: number, held: Arrangement, located: 'engine' | 'far' | null): 'engine' | 'far' | null =>
  held === 'one-end' && located === null ? null : loadedEnd(force, held, located ?? 'engine');

/** Thrust of each gear, the bearing that takes it, whether the shim sees it; hours of each pair since it went in. */
@Component({
  selector: 'hs-box-life',
  imports: [Choice, FigureButton, EntryField, Field, RemoveButton, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './life-tab.html',
  styleUrl: './life-tab.scss',
})
export class LifeTab {
  protected readonly box = inject(BoxBench);
  protected readonly hours = boxSubjects.boxHours.value;
  protected readonly shafts = SHAFTS;
  protected readonly figures = boxFigures;
  protected readonly unit = computed(() => this.box.bench.figure(boxFigures.wheelTorque()) !== undefined);
  protected readonly readHours = numberReader('Hours', { min: 1, max: 1e5 });
  protected readonly readName = textReader('What wears', 60);

  private cell(shaft: BoxShaft, force: number): { text: string; end: string; seen: boolean } {
    const spec = this.box.inside()?.shafts[shaft];
    const end = spec?.arrangement ? endOf(force, spec.arrangement, spec.located) : null;
    return {
      text: `${force < 0 ? '−' : ''}${say(Math.abs(force), 'force', this.box.bench.system(), 0)}`,
      end: end ? ENDS[end] : '',
      seen: end !== null && end === spec?.shim,
    };
  }

  protected readonly thrusts = computed(() => {
    const [inside, state] = [this.box.inside(), this.box.state()];
    if (!inside || !state) return [];
    return state.thrusts.map(({ pair: id, drive, overrun, inputN, balancingDeg }) => {
      const pair = inside.pairs.find((one) => one.id === id);
      return {
        id,
        name: pair ? pairName(inside, pair) : '',
        driving: this.cell('driving', drive.driving),
        driven: this.cell('driven', drive.driven),
        back: [overrun.driving, overrun.driven].map((force) => this.cell('driving', force).text).join(', '),
        input: inputN === null ? '' : this.cell('driven', inputN).text,
        balancing: balancingDeg === null ? '' : `${balancingDeg.toFixed(1)}°`,
      };
    });
  });
  protected readonly straight = computed(() => {
    const inside = this.box.inside();
    return inside !== null && entryBase(inside.helix) === 0;
  });
  protected readonly layshaft = computed(() => this.box.inside()?.pairs.some(({ constant }) => constant) ?? false);
  protected readonly pairs = computed(() => {
    const [inside, state] = [this.box.inside(), this.box.state()];
    if (!inside || !state) return [];
    return inside.pairs.map((pair) => ({
      ...this.hoursOf(pair),
      name: pairName(inside, pair),
      teeth: teethText(pair),
      ratio: boxRatio(inside, pair).toFixed(3),
    }));
  });
  protected readonly wearing = computed(() =>
    (this.box.inside()?.wearing ?? []).map((one) => ({
      ...this.hoursOf(one),
      name: one.name,
      lifeHours: one.lifeHours,
    })),
  );
  /** What the stack and the drum have that wears, and nobody counts yet. */
  protected readonly offered = computed(() => {
    const [inside, state] = [this.box.inside(), this.box.state()];
    if (!inside || !state) return [];
    const counted = new Set(inside.wearing.map(({ id }) => id));
    const pieces = SHAFTS.flatMap(({ shaft, name }) =>
      inside.shafts[shaft].pieces.flatMap((piece, i) => {
        if (piece.kind === 'bearing')
          return [{ id: piece.id, name: piece.name || `Bearing ${i === 0 ? 'first' : 'last'}, ${name.toLowerCase()}` }];
        if (piece.kind !== 'hub') return [];
        const hub = hubName(inside, state.judged, piece.id).toLowerCase();
        return [
          { id: piece.id, name: `Ring of ${hub}` },
          { id: `fork-${piece.id}`, name: `Fork of ${hub}` },
        ];
      }),
    );
    return pieces.filter(({ id }) => !counted.has(id));
  });

  protected readonly offerOptions = computed(() => [
    { value: '', label: 'choose' },
    ...this.offered().map(({ id, name }) => ({ value: id, label: name })),
  ]);

  private hoursOf({ id, lifeHours }: Pick<WearingSpec, 'id' | 'lifeHours'>) {
    const run = this.box.state()?.hours.get(id) ?? 0;
    const share = lifeHours === null ? null : run / lifeHours;
    return {
      id,
      run: `${run.toFixed(1)} h`,
      limit: lifeHours === null ? 'not said' : `${lifeHours} h`,
      share: share === null ? 0 : Math.min(100, 100 * share),
      worn: share !== null && share >= 0.9,
    };
  }

  /** Its hours count from the next run on. */
  protected count(id: string): void {
    const offer = this.offered().find((one) => one.id === id);
    if (!offer) return;
    const fromRun = lastRunOf(this.box.bench.readings());
    this.box.change((inside) => inside.wearing.push({ ...offer, lifeHours: null, fromRun }));
  }

  protected countNamed(name: string): void {
    const inside = this.box.inside();
    if (!inside || name === '') return;
    const taken = [...inside.wearing, ...inside.pairs].map(({ id }) => id);
    const fromRun = lastRunOf(this.box.bench.readings());
    this.box.change((draft) => draft.wearing.push({ id: freshId(taken, 'wear'), name, lifeHours: null, fromRun }));
  }

  protected setLife(id: string, lifeHours: number | null): void {
    this.box.change((inside) => {
      const one = inside.wearing.find((piece) => piece.id === id);
      if (one) one.lifeHours = lifeHours;
    });
  }

  protected uncount(id: string): void {
    this.box.change((inside) => (inside.wearing = inside.wearing.filter((one) => one.id !== id)));
  }
  protected readonly runs = computed(() =>
    runsOf(this.box.bench.readings()).map(({ id, run }) => ({
      id,
      number: run,
      typed: this.box.entry(boxSubjects.boxHours.of({ run: String(run) }))?.typed ?? '',
    })),
  );
  protected readonly worst = computed(() => {
    const all = [...this.pairs(), ...this.wearing().map((one) => ({ ...one, teeth: '' }))].filter(
      ({ share }) => share > 0,
    );
    return all.length === 0 ? null : all.reduce((a, b) => (b.share > a.share ? b : a));
  });

  protected log(entry: Entry): void {
    const run = String((this.runs().at(-1)?.number ?? 0) + 1);
    this.box.bench.record(boxSubjects.boxHours.of({ run }), entry, 'By hand');
  }

  protected renew(pair: string): void {
    this.box.bench.record(boxSubjects.boxNew.of({ pair }), { of: 'choice', choice: 'new' }, 'By hand');
  }
}
