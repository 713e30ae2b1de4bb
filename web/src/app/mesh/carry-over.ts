import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router } from '@angular/router';
import { MESH_LIMITS, carryOver, entryBase, say, type Entry } from '@hot-spline/core';
import type { Setup } from '@hot-spline/model';
import { attempt } from '../shared/attempt';
import { EntryField } from '../shared/entry-field';
import { SetUp, pieceIn } from './set-up';

type Key = keyof Setup['carryOver'];

const FIELDS: readonly { readonly key: Key; readonly label: string; readonly shim: boolean }[] = [
  { key: 'oldLeft', label: 'Old carrier, left race to flange', shim: false },
  { key: 'oldRight', label: 'Old carrier, right race to flange', shim: false },
  { key: 'newLeft', label: 'New carrier, left race to flange', shim: false },
  { key: 'newRight', label: 'New carrier, right race to flange', shim: false },
  { key: 'oldMaster', label: 'Master shim laid between, old', shim: true },
  { key: 'newMaster', label: 'Master shim laid between, new', shim: true },
];

/** The short way where the same gears go back on another carrier: the shims carried over by race to flange. */
@Component({
  selector: 'hs-carry-over',
  imports: [EntryField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Another carrier, the same gears">
      <h2 class="section-title">Another carrier, the same gears</h2>
      <p class="soft">
        Calliper from the outer race to the ring’s flange, bearings on. Where a bearing stands proud of its race, lay a
        master shim between. Leave them empty if the old carrier goes back.
      </p>
      <div class="grid">
        @for (field of fields; track field.key) {
          <hs-entry
            [name]="'carry-' + field.key"
            [label]="field.label"
            quantity="length"
            [range]="field.shim ? shims : heights"
            [entry]="setUp.setup()!.carryOver[field.key]"
            (taken)="set(field.key, $event.entry)"
          />
        }
      </div>
      @if (result.problem(); as problem) {
        <p class="caution" role="alert">{{ problem }}</p>
      }
      @if (result.value(); as sides) {
        <p class="sides">
          Left <strong class="mono">{{ text(sides.leftMm) }}</strong>, right
          <strong class="mono">{{ text(sides.rightMm) }}</strong>
          <button type="button" class="quiet" (click)="lay()">Put it in</button>
        </p>
      } @else if (!result.problem()) {
        <p class="soft">{{ missing() }}</p>
      }
    </section>
  `,
  styleUrls: ['../shared/sheet.scss'],
  styles: `
    @use 'breakpoints' as *;
    section {
      display: grid;
      gap: 8px;
      margin-bottom: 10px;
    }
    .grid {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      grid-auto-flow: row;
      gap: 0 12px;
    }
    .sides {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
    }
    strong {
      font-size: var(--text-l);
    }
    @media #{$narrow} {
      .grid {
        grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      }
    }
  `,
})
export class CarryOver {
  protected readonly setUp = inject(SetUp);
  private readonly router = inject(Router);
  protected readonly fields = FIELDS;
  protected readonly heights = MESH_LIMITS.heightMm;
  protected readonly shims = MESH_LIMITS.shimMm;

  protected readonly missing = computed(() =>
    this.setUp.mesh()?.now ? 'Needs all four lengths.' : 'Needs the side shims that came out, and all four lengths.',
  );
  protected readonly result = attempt(() => {
    const [of, now] = [this.setUp.setup()?.carryOver, this.setUp.mesh()?.assemblies[0]];
    if (!of?.oldLeft || !of.oldRight || !of.newLeft || !of.newRight || !now) return null;
    const measured = (left: Entry, right: Entry, master: Entry | null) => ({
      leftMm: entryBase(left),
      rightMm: entryBase(right),
      ...(master ? { masterShimMm: entryBase(master) } : {}),
    });
    return carryOver(
      { leftMm: now.leftMm, rightMm: now.rightMm },
      measured(of.oldLeft, of.oldRight, of.oldMaster),
      measured(of.newLeft, of.newRight, of.newMaster),
    );
  });

  private piece(mm: number): Entry {
    return pieceIn(mm, this.setUp.bench.system());
  }

  protected text(mm: number): string {
    return say(mm, 'length', this.setUp.bench.system());
  }

  protected set(key: Key, entry: Entry): void {
    this.setUp.change(({ carryOver: of }) => (of[key] = entry));
  }

  protected lay(): void {
    const [sides, came] = [this.result.value(), this.setUp.mesh()?.assemblies[0]?.value];
    if (!sides || !came) return;
    this.setUp.plan({ ...came, left: [this.piece(sides.leftMm)], right: [this.piece(sides.rightMm)] });
    void this.router.navigate(['/builds', this.setUp.bench.editor().id, 'carrier']);
  }
}
