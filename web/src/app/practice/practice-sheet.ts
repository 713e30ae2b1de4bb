import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { meshMap, say, saySmall } from '@hot-spline/core';
import {
  PRACTICE_LESSONS,
  boxFloatScore,
  boxFloatsOf,
  floatScore,
  floatUnitOf,
  practiceAxleOf,
  practicePlace,
  practiceScore,
} from '@hot-spline/model/practice';
import { SetUp } from '../mesh/set-up';
import { SetUpMap } from '../mesh/set-up-map';
import { SheetHead } from '../shared/sheet-head';

/** A practice axle: what it teaches, how far one is, and at the end the truth. */
@Component({
  selector: 'hs-practice-sheet',
  imports: [RouterLink, SetUpMap, SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head title="Practice" [about]="lesson()?.title ?? 'A random axle.'" />
    @if (score(); as s) {
      <p>{{ lesson()?.teaches ?? 'Strip it, set it up, sign it: the truth is shown at the end.' }}</p>
      <ol>
        <li>
          <a routerLink="../baseline">Baseline</a>: write what came out. The simulated gauge reads it: open it below, go
          to a field, press space.
        </li>
        <li>
          <a routerLink="../carrier">Carrier</a>: put it together. <a routerLink="../mesh">Mesh</a>: sweep, paint, look.
        </li>
        <li>
          <a routerLink="../gates">Gate A</a>, <a routerLink="../preload">preload</a>, the final readings, Gate B.
        </li>
      </ol>
      <dl>
        <div>
          <dt>Assemblies</dt>
          <dd class="mono">{{ s.assemblies }}</dd>
        </div>
        <div>
          <dt>Spacers</dt>
          <dd class="mono">{{ s.spacers }}</dd>
        </div>
        <div>
          <dt>Minutes</dt>
          <dd class="mono">{{ s.minutes.toFixed(0) }}</dd>
        </div>
      </dl>
      @if (shown()) {
        <section aria-label="The truth">
          <h2 class="section-title">The truth</h2>
          <p class="verdict" role="status">
            {{ s.inSpec ? 'It really is in spec as it stands.' : 'It is not in spec as it stands.' }}
          </p>
          <table class="table">
            <caption class="visually-hidden">
              The same axle, set up by others
            </caption>
            <thead>
              <tr>
                <th scope="col">Set up by</th>
                <th scope="col">Assemblies until in spec</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">you</th>
                <td class="mono">{{ s.inSpec ? s.assemblies : s.assemblies + ', not yet' }}</td>
              </tr>
              <tr>
                <th scope="row">the rule of thumb: 0.7, a bold move, then split</th>
                <td class="mono">{{ s.ruleOfThumb ?? 'more than 7' }}</td>
              </tr>
              <tr>
                <th scope="row">the advisor alone</th>
                <td class="mono">{{ s.advisor ?? 'more than 7' }}</td>
              </tr>
            </tbody>
          </table>
          <p>{{ right() }}</p>
          @if (map(); as m) {
            <hs-set-up-map [map]="m.map" [numbers]="m.numbers" [next]="m.right" nextName="✓" />
          }
        </section>
      } @else {
        <button type="button" class="quiet" (click)="shown.set(true)">Show the truth: this ends the practice</button>
      }
    } @else if (floating(); as s) {
      <p>{{ lesson()?.teaches }}</p>
      <ol>
        <li><a routerLink="../baseline">Baseline</a>: write the shim that came out; the simulated gauge reads it.</li>
        <li><a routerLink="../carrier">Carrier</a>: read float, lay out the next shim, put it together, read again.</li>
        <li><a routerLink="../gates">Gate A</a>, float with the case bolted up, Gate B.</li>
      </ol>
      <dl>
        <div>
          <dt>Assemblies</dt>
          <dd class="mono">{{ s.assemblies }}</dd>
        </div>
        <div>
          <dt>Minutes</dt>
          <dd class="mono">{{ s.minutes.toFixed(0) }}</dd>
        </div>
      </dl>
      @if (shown()) {
        <section aria-label="The truth">
          <h2 class="section-title">The truth</h2>
          <p class="verdict" role="status">
            {{ s.inSpec ? 'It really is in spec as it stands.' : 'It is not in spec as it stands.' }}
          </p>
          <p>
            The middle of the band is a shim of {{ length(s.rightShimMm) }}. By the rule, new = old + measured − wanted,
            it takes one assembly.
          </p>
        </section>
      } @else {
        <button type="button" class="quiet" (click)="shown.set(true)">Show the truth: this ends the practice</button>
      }
    } @else if (boxed(); as s) {
      <p>{{ lesson()?.teaches }}</p>
      <ol>
        <li>
          <a routerLink="../box" [queryParams]="{ tab: 'float' }">Box, end float</a>: the shim that lay in each seat;
          the simulated gauge reads it: open it below, go to a field, press space.
        </li>
        <li>Its float, twice the same; the next shim, measured; its float again; approved.</li>
      </ol>
      <dl>
        <div>
          <dt>Shims tried</dt>
          <dd class="mono">{{ s.shims }}</dd>
        </div>
        <div>
          <dt>Minutes</dt>
          <dd class="mono">{{ minutes().toFixed(0) }}</dd>
        </div>
      </dl>
      @if (shown()) {
        <section aria-label="The truth">
          <h2 class="section-title">The truth</h2>
          <p class="verdict" role="status">
            {{ s.inSpec ? 'Both really are in their bands.' : 'They are not both in their bands.' }}
          </p>
          <p>
            The middle of each band:
            @for (one of s.right; track one.shaft) {
              {{ one.shaft }} shaft a shim of {{ length(one.shimMm) }}{{ $last ? '.' : ',' }}
            }
            By the rule, new = old + measured − wanted, one shim a shaft does.
          </p>
        </section>
      } @else {
        <button type="button" class="quiet" (click)="shown.set(true)">Show the truth: this ends the practice</button>
      }
    } @else {
      <div class="empty">
        <h2>This build is not for practice</h2>
        <a class="quiet" routerLink="/practice">Practice bench</a>
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    p,
    ol {
      margin-bottom: 10px;
    }
    ol {
      padding-left: 20px;
      list-style: decimal;
    }
    dl {
      display: flex;
      gap: 36px;
      margin-bottom: 14px;
    }
    dt {
      font-size: var(--text-s);
      color: var(--soft);
    }
    dd {
      font-size: var(--text-figure);
    }
    .verdict {
      font-weight: 600;
    }
    .table {
      max-width: 520px;
      margin-bottom: 10px;
    }
    hs-set-up-map {
      max-width: 560px;
    }
    button {
      justify-self: start;
      align-self: flex-start;
    }
  `,
})
export class PracticeSheet {
  private readonly setUp = inject(SetUp);
  protected readonly shown = signal(false);
  private readonly build = this.setUp.bench.build;
  protected readonly lesson = computed(
    () => PRACTICE_LESSONS.find(({ id }) => id === this.build()?.practice?.lesson) ?? null,
  );
  private readonly axle = computed(() => {
    const build = this.build();
    return build && practiceAxleOf(build);
  });
  protected readonly minutes = computed(() => {
    const times = this.setUp.bench.ledger().map(({ at }) => Date.parse(at));
    return times.length < 2 ? 0 : (Math.max(...times) - Math.min(...times)) / 60_000;
  });
  protected readonly score = computed(() => {
    const [axle, mesh] = [this.axle(), this.setUp.mesh()];
    return axle && mesh && practiceScore(axle, mesh, this.setUp.preload(), this.minutes());
  });
  protected readonly floating = computed(() => {
    const [build, mesh] = [this.build(), this.setUp.mesh()];
    const unit = build && floatUnitOf(build);
    return unit && mesh && floatScore(unit, mesh, this.minutes());
  });
  protected readonly boxed = computed(() => {
    const build = this.build();
    const floats = build && boxFloatsOf(build);
    const jobs = this.setUp.bench.derived()?.box?.floats;
    return floats && jobs && boxFloatScore(floats, jobs);
  });
  protected readonly length = (mm: number): string => say(mm, 'length', this.setUp.bench.system());
  protected readonly right = computed(() => {
    const [score, mesh] = [this.score(), this.setUp.mesh()];
    const at = mesh && practicePlace(mesh);
    if (!score || !at) return '';
    const system = this.setUp.bench.system();
    const ring = score.right.ringShiftMm - at.ringShiftMm;
    return `All is right with ${saySmall(score.right.pinionShimMm, system)} of pinion shim and the ring ${saySmall(ring, system)} ${ring > 0 ? 'nearer to' : 'farther from'} the pinion than now.`;
  });
  protected readonly map = computed(() => {
    const [mesh, score] = [this.setUp.mesh(), this.score()];
    const came = mesh?.assemblies.find(({ number }) => number === 0);
    if (!mesh?.job || !score) return null;
    const { pinionShimMm, ringShiftMm } = score.right;
    // On the map the ring is counted from the first trial.
    const right = { pinionShimMm, ringShiftMm: ringShiftMm + (came?.ringMm ?? 0) };
    return { map: meshMap(mesh.job), numbers: mesh.tries, right };
  });
}
