import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { drivenAxles, type AxleName } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Bench } from '../state/bench';
import { uiActions } from '../state/ui';
import { Radios } from './radios';

/** Rear or front, where both are driven. */
@Component({
  selector: 'hs-axle-switch',
  imports: [Radios],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (options().length > 1) {
      <hs-radios
        name="axle-switch"
        label="Axle"
        [labelHidden]="true"
        [options]="options()"
        [value]="bench.axleName()"
        (chosen)="choose($event)"
      />
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
