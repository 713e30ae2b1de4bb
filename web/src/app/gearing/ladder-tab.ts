import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { InputError, LIMITS, entryBase, parseEntry, say, type Entry } from '@hot-spline/core';
import { finalsOf } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Chart, chartColours, type ChartOption } from '../shared/chart';
import { Choice } from '../shared/choice';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { rpmAt } from './at-speed';
import { ladderOption } from './ladder-chart';

const MOST = 8;

/** Engine speed in every gear at the road speeds that matter. */
@Component({
  selector: 'hs-ladder-tab',
  imports: [Chart, Choice, Field, FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ask">
      <hs-field
        name="ladder-speeds"
        label="Road speeds, with commas"
        [text]="text()"
        [read]="read()"
        (taken)="set($event)"
      />
      @if (finals().length > 1) {
        <hs-choice
          name="ladder-final"
          label="Final drive"
          [options]="finals()"
          [value]="final()"
          (chosen)="final.set($event)"
        />
      }
    </div>
    <hs-chart [option]="option()" label="Engine speed in every gear at chosen road speeds" />
    <div class="figures">
      <hs-figure id="gearing.cruise" label="Engine speed at cruise" />
      <hs-figure id="road.rpm" label="Engine speed at the finish" />
      <hs-figure id="road.speed" />
      <hs-figure id="match.crawl" />
    </div>
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    :host {
      padding: 0 !important;
      flex: 1;
      min-height: 0;
    }
    .ask {
      display: grid;
      grid-template-columns: minmax(0, 460px) minmax(120px, 200px);
      gap: 0 16px;
    }
    hs-chart {
      flex: 1;
      height: auto;
      min-height: 300px;
      margin-bottom: 8px;
    }
  `,
})
export class LadderTab {
  protected readonly bench = inject(Bench);
  private readonly night = inject(Store).selectSignal(uiFeature.selectNight);
  private readonly speeds = computed(() => this.bench.build()?.brief.ladder ?? []);
  protected readonly text = computed(() => {
    const system = this.bench.system();
    return this.speeds()
      .map((entry) => say(entryBase(entry), 'speed', system, 0).replace(/\s/g, ' '))
      .join(', ');
  });
  protected readonly read = computed(() => {
    const system = this.bench.system();
    return (text: string): Understood<Entry[]> => {
      const parts = text.split(/[,;]/).filter((part) => part.trim() !== '');
      if (parts.length > MOST)
        throw new InputError('Road speeds', `Road speeds has ${parts.length} entries.`, `at most ${MOST}`);
      const range = { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' };
      const value = parts.map(
        (part) => parseEntry(part, { field: 'Road speeds', quantity: 'speed', system, range }).entry,
      );
      return { value, said: `${value.length} columns` };
    };
  });
  /** The final drive in the axle and the candidates: each has a ladder of its own. */
  private readonly known = computed(() => {
    const build = this.bench.build();
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    return build && own ? finalsOf(build, own).map((final, i) => ({ ...final, value: String(i) })) : [];
  });
  protected readonly finals = computed(() =>
    this.known().map(({ value, label, present }) => ({ value, label: present ? `${label}, in the axle` : label })),
  );
  /** Which of them is drawn; back to the axle's own when one comes or goes. */
  protected readonly final = linkedSignal({ source: () => this.known().length, computation: () => '0' });
  protected readonly option = computed<ChartOption>(() => {
    const build = this.bench.build();
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    this.night();
    if (!build || !own) return {};
    const finalRatio = this.known()[Number(this.final())]?.ratio;
    const columns = [...this.speeds()]
      .sort((a, b) => entryBase(a) - entryBase(b))
      .map((entry) => ({
        speedMps: entryBase(entry),
        label: entry.typed,
        rungs: build.gearbox.gears.map(({ name }, gear) => ({
          gear: name,
          rpm: rpmAt(build, own, this.bench.point().range, entryBase(entry), { gear, finalRatio }),
        })),
      }));
    return ladderOption({
      columns,
      limitRpm: build.engine.limitRpm,
      window: build.brief.window,
      system: this.bench.system(),
      colours: chartColours(),
    });
  });

  protected set(ladder: Entry[]): void {
    this.bench.change((draft) => (draft.brief.ladder = ladder));
  }
}
