import { ChangeDetectionStrategy, Component, computed, inject, viewChild } from '@angular/core';
import { say } from '@hot-spline/core';
import { freshId, gearingFigures, type KeptPoint } from '@hot-spline/model';
import { textReader } from '../shared/readers';
import { Field } from '../shared/field';
import { Bench } from '../state/bench';
import { Popover } from 'primeng/popover';

const USUAL = ['Cruise', 'Trap', 'Corner exit', 'Crawl'];
const MOST = 12;

/** Operating points that are kept on the build: one press moves the whole Line there. */
@Component({
  selector: 'hs-kept-points',
  imports: [Field, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="points" role="group" aria-label="Kept operating points">
      @for (point of points(); track point.id) {
        <button
          type="button"
          [class.on]="point.here"
          [attr.aria-pressed]="point.here"
          [title]="point.title"
          (click)="go(point)"
        >
          {{ point.name }}
        </button>
      }
      <button
        type="button"
        class="more"
        aria-haspopup="dialog"
        aria-label="Keep this operating point, or edit the kept ones"
        (click)="panel.toggle($event)"
      >
        <i class="pi pi-plus" aria-hidden="true"></i>
      </button>
    </div>
    <p-popover #panel ariaLabel="Kept operating points">
      <div class="panel">
        @if (points().length < most) {
          <p class="soft">Keep this point as</p>
          <div class="names">
            @for (name of usual(); track name) {
              <button type="button" class="quiet" (click)="keep(name)">{{ name }}</button>
            }
          </div>
          <hs-field
            name="point-name"
            label="or another name"
            text=""
            placeholder="e.g. Hairpin"
            [read]="readName"
            [enterOnly]="true"
            verb="Keep"
            [compact]="true"
            (taken)="keep($event)"
          />
        }
        <ul>
          @for (point of points(); track point.id) {
            <li>
              <span>{{ point.name }}</span>
              <span class="mono soft">{{ point.title }}</span>
              <button
                type="button"
                class="quiet icon bare"
                [attr.aria-label]="'Remove point ' + point.name"
                (click)="remove(point.id)"
              >
                <i class="pi pi-trash" aria-hidden="true"></i>
              </button>
            </li>
          }
        </ul>
      </div>
    </p-popover>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      position: relative;
      flex: none;
    }
    .points {
      display: flex;
      gap: 4px;
    }
    .points button {
      min-height: 26px;
      padding: 0 9px;
      background: none;
      border: 1px solid var(--rule);
      border-radius: 13px;
      cursor: pointer;
      font-size: var(--text-s);
      white-space: nowrap;
    }
    .points button.on {
      background: var(--ochre-wash);
      border-color: var(--ochre);
      color: var(--ochre-text);
    }
    .points .more {
      padding: 0 7px;
    }
    .points .pi {
      font-size: var(--text-xs);
    }
    .panel {
      display: grid;
      gap: var(--space-2);
      width: 300px;
    }
    .names {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    li {
      display: flex;
      align-items: center;
      gap: 10px;
      font-size: var(--text-s);
    }
    li .mono {
      margin-left: auto;
    }
    @media #{$narrow} {
      :host {
        flex-basis: 100%;
        order: 4;
      }
      .points {
        flex-wrap: wrap;
      }
      .points button {
        min-height: 44px;
        border-radius: 22px;
      }
    }
  `,
})
export class KeptPoints {
  private readonly bench = inject(Bench);
  protected readonly most = MOST;
  private readonly panel = viewChild.required<Popover>('panel');
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly points = computed(() => {
    const build = this.bench.build();
    if (!build) return [];
    const now = this.bench.point();
    return build.points.map((point) => {
      const speed = this.bench.figure(gearingFigures.point(point.id))?.value ?? null;
      const gear = build.gearbox.gears[point.gear]?.name ?? '–';
      const at = speed === null ? '' : ` · ${say(speed, 'speed', this.bench.system(), 0)}`;
      return {
        ...point,
        title: `gear ${gear} · ${Math.round(point.rpm)} rpm${at}`,
        here: now.gear === point.gear && now.range === point.range && Math.abs(now.rpm - point.rpm) < 1,
      };
    });
  });
  protected readonly usual = computed(() => {
    const taken = new Set(this.points().map(({ name }) => name));
    return USUAL.filter((name) => !taken.has(name));
  });

  protected go(point: KeptPoint): void {
    const limit = this.bench.build()?.engine.limitRpm ?? point.rpm;
    this.bench.lookAt({ gear: point.gear, range: point.range, rpm: Math.min(point.rpm, limit) });
  }

  protected keep(name: string): void {
    const at = this.bench.point();
    this.bench.change((draft) => {
      const id = freshId(
        draft.points.map((point) => point.id),
        'p',
      );
      draft.points.push({ id, name, ...at });
    });
    this.panel().hide();
  }

  protected remove(id: string): void {
    this.bench.change((draft) => (draft.points = draft.points.filter((point) => point.id !== id)));
  }
}
