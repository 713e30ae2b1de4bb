import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { boxRatio, entryBase, loadedEnd, say, type Arrangement, type BoxShaft, type Entry } from '@hot-spline/core';
import { boxSubjects, pairName, runsOf, teethText } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { VoidButton } from '../shared/void-button';
import { BoxBench, SHAFTS } from './box-bench';

const ENDS = { engine: 'engine end', far: 'far end' } as const;

/** The bearing that takes it; of a shaft that is held at one end none while nobody has said which. */
const endOf = (force: number, held: Arrangement, located: 'engine' | 'far' | null): 'engine' | 'far' | null =>
  held === 'one-end' && located === null ? null : loadedEnd(force, held, located ?? 'engine');

/** Thrust of each gear, the bearing that takes it, whether the shim sees it; hours of each pair since it went in. */
@Component({
  selector: 'hs-box-life',
  imports: [EntryField, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './life-tab.html',
  styleUrl: './life-tab.scss',
})
export class LifeTab {
  protected readonly box = inject(BoxBench);
  protected readonly hours = boxSubjects.boxHours.value;
  protected readonly shafts = SHAFTS;

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
    return inside.pairs.map((pair) => {
      const run = state.hours.get(pair.id) ?? 0;
      const share = pair.lifeHours === null ? null : run / pair.lifeHours;
      return {
        id: pair.id,
        name: pairName(inside, pair),
        teeth: teethText(pair),
        ratio: boxRatio(inside, pair).toFixed(3),
        run: `${run.toFixed(1)} h`,
        limit: pair.lifeHours === null ? 'not said' : `${pair.lifeHours} h`,
        share: share === null ? 0 : Math.min(100, 100 * share),
        worn: share !== null && share >= 0.9,
      };
    });
  });
  protected readonly runs = computed(() =>
    runsOf(this.box.bench.readings()).map(({ id, run }) => ({
      id,
      number: run,
      typed: this.box.entry(boxSubjects.boxHours.of({ run: String(run) }))?.typed ?? '',
    })),
  );
  protected readonly worst = computed(() => {
    const all = this.pairs().filter(({ share }) => share > 0);
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
