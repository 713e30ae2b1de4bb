import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { InputError, LIMITS, engineRpm, entryBase, parseEntry, say, type Entry } from '@hot-spline/core';
import { gearingAt } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Chart, chartColours, type ChartOption } from '../shared/chart';
import { Field, type Understood } from '../shared/field';
import { FigureButton } from '../shared/figure-button';
import { Bench } from '../state/bench';
import { uiFeature } from '../state/ui';
import { ladderOption } from './ladder-chart';

const MOST = 8;

/** Engine speed in every gear at the road speeds that matter. */
@Component({
  selector: 'hs-ladder-tab',
  imports: [Chart, Field, FigureButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-field
      name="ladder-speeds"
      label="Road speeds, most important first or as you like"
      [text]="text()"
      [read]="read()"
      (taken)="set($event)"
    />
    <hs-chart [option]="option()" label="Engine speed in every gear at chosen road speeds" />
    <div class="figures">
      <hs-figure id="gearing.cruise" label="Engine speed at cruise" />
      <hs-figure id="road.rpm" label="Engine speed at the mark" />
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
    hs-field {
      max-width: 460px;
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
  protected readonly option = computed<ChartOption>(() => {
    const build = this.bench.build();
    const own = this.bench.derived()?.gearing[this.bench.axleName()];
    this.night();
    if (!build || !own) return {};
    const columns = [...this.speeds()]
      .sort((a, b) => entryBase(a) - entryBase(b))
      .map((entry) => ({
        speedMps: entryBase(entry),
        label: entry.typed,
        rungs: build.gearbox.gears.map((gear, i) => ({
          gear: gear.name,
          rpm: engineRpm(gearingAt(build, own, i, this.bench.point().range), entryBase(entry)),
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
