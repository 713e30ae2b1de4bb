import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { drivenAxles, type AxleName } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { SelectButton } from 'primeng/selectbutton';
import { Bench } from '../state/bench';
import { uiActions } from '../state/ui';

/** Rear or front, where both are driven. */
@Component({
  selector: 'hs-axle-switch',
  imports: [SelectButton, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (options().length > 1) {
      <p-selectbutton
        size="small"
        ariaLabelledBy="axle-switch"
        [options]="options()"
        optionLabel="label"
        optionValue="value"
        [allowEmpty]="false"
        [ngModel]="bench.axleName()"
        (ngModelChange)="choose($event)"
      />
      <span id="axle-switch" class="visually-hidden">Axle</span>
    }
  `,
})
export class AxleSwitch {
  protected readonly bench = inject(Bench);
  private readonly store = inject(Store);
  protected readonly options = computed(() => {
    const build = this.bench.build();
    const names: AxleName[] = build ? drivenAxles(build) : [];
    return names.map((value) => ({ value, label: value === 'rear' ? 'Rear axle' : 'Front axle' }));
  });

  protected choose(axle: AxleName): void {
    this.store.dispatch(uiActions.axleChosen({ axle }));
  }
}
