import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { DecimalSign, UnitSystem } from '@hot-spline/core';
import { Store } from '@ngrx/store';
import { Radios } from '../shared/radios';
import { ShopSettings } from '../state/shop-settings';
import { uiActions, uiFeature } from '../state/ui';

/** Asked once on a device: units and decimal sign, as the browser's language has them. */
@Component({
  selector: 'hs-first-start',
  imports: [Radios],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!asked()) {
      <section aria-label="How this device writes numbers">
        <hs-radios
          name="first-units"
          label="Units on this device"
          [options]="systems"
          [value]="system()"
          (chosen)="chooseSystem($event)"
        />
        @if (shopSign() === null) {
          <hs-radios
            name="first-decimal"
            label="Decimals are written"
            [options]="signs"
            [value]="sign() ?? 'either'"
            (chosen)="chooseSign($event)"
          />
        }
        <button type="button" class="quiet" (click)="store.dispatch(actions.asked())">So it is</button>
      </section>
    }
  `,
  styles: `
    section {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 20px;
      align-items: end;
      margin-bottom: var(--space-3);
      padding: 10px 14px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
    }
  `,
})
export class FirstStart {
  protected readonly store = inject(Store);
  protected readonly actions = uiActions;
  protected readonly asked = this.store.selectSignal(uiFeature.selectAsked);
  protected readonly system = this.store.selectSignal(uiFeature.selectSystem);
  protected readonly sign = this.store.selectSignal(uiFeature.selectDecimal);
  private readonly settings = inject(ShopSettings).settings;
  /** What the shop says goes before. */
  protected readonly shopSign = computed(() => this.settings().decimal);
  protected readonly systems: { value: UnitSystem; label: string }[] = [
    { value: 'inch', label: 'inch, lb' },
    { value: 'metric', label: 'mm, kg' },
  ];
  protected readonly signs: { value: DecimalSign | 'either'; label: string }[] = [
    { value: 'point', label: '1.5' },
    { value: 'comma', label: '1,5' },
    { value: 'either', label: 'either' },
  ];

  protected chooseSystem(system: UnitSystem): void {
    this.store.dispatch(uiActions.systemChosen({ system }));
  }

  protected chooseSign(sign: DecimalSign | 'either'): void {
    this.store.dispatch(uiActions.decimalChosen({ decimal: sign === 'either' ? null : sign }));
  }
}
