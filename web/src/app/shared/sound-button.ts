import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { Sound } from '../state/sound';

/** Switches sound on and off on this device. */
@Component({
  selector: 'hs-sound',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="quiet no-print" [attr.aria-pressed]="sound.on()" (click)="sound.flip()">
      <i class="pi" [class.pi-volume-up]="sound.on()" [class.pi-volume-off]="!sound.on()" aria-hidden="true"></i>
      {{ what() }}
    </button>
  `,
  styles: `
    button {
      min-height: 44px;
      font-size: var(--text-s);
    }
    button[aria-pressed='true'] {
      border-color: var(--blue);
      color: var(--blue);
    }
  `,
})
export class SoundButton {
  readonly what = input('Say it aloud');
  protected readonly sound = inject(Sound);
}
