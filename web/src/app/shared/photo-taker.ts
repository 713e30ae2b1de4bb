import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, inject, input, output, signal, viewChild } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { Outbox } from '../state/outbox';
import { readPhoto } from './photo';

/** Photos of one thing, and a button that takes more. */
@Component({
  selector: 'hs-photo-taker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (photo of photos(); track photo) {
      <span class="photo">
        <a [href]="outbox.photoAddress(photo)" target="_blank" rel="noopener">
          <img [src]="outbox.photoAddress(photo)" [alt]="'Photo of ' + what()" />
        </a>
        @if (droppable()) {
          <button type="button" class="quiet icon bare" aria-label="Take the photo off" (click)="dropped.emit(photo)">
            <i class="pi pi-times" aria-hidden="true"></i>
          </button>
        }
      </span>
    }
    <button type="button" class="quiet" [disabled]="busy()" (click)="pick()">
      <i class="pi pi-camera" aria-hidden="true"></i>{{ busy() ? 'Keeping…' : 'Add photo' }}
    </button>
    <input
      #picker
      type="file"
      accept="image/*"
      multiple
      class="visually-hidden"
      tabindex="-1"
      [attr.aria-label]="'Photo of ' + what()"
      (change)="add()"
    />
    @if (problem(); as p) {
      <p class="caution" role="alert">{{ p }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
    }
    .photo {
      position: relative;
    }
    .photo img {
      display: block;
      width: 76px;
      height: 57px;
      object-fit: cover;
      border: 1px solid var(--rule);
      border-radius: 4px;
    }
    .photo button {
      position: absolute;
      top: -8px;
      right: -8px;
      min-width: 24px;
      min-height: 24px;
      padding: 0;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 50%;
    }
  `,
})
export class PhotoTaker {
  /** The piece in words. */
  readonly what = input.required<string>();
  readonly photos = input.required<readonly string[]>();
  /** Names a photo that is kept; goes on to mean this piece when another one is shown. */
  readonly keep = input.required<(id: string) => void>();
  readonly droppable = input(false);
  readonly dropped = output<string>();

  protected readonly outbox = inject(Outbox);
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');
  protected readonly busy = signal(false);
  protected readonly problem = signal('');

  protected pick(): void {
    this.picker().nativeElement.click();
  }

  /** A photo is named on the build only once this device, or the server, has it. */
  protected async add(): Promise<void> {
    const box = this.picker().nativeElement;
    const files = [...(box.files ?? [])];
    box.value = '';
    this.problem.set('');
    this.busy.set(true);
    const keep = this.keep();
    try {
      for (const file of files) {
        const { id, blob } = await readPhoto(file);
        await this.outbox.putPhoto(id, blob);
        keep(id);
      }
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      this.problem.set(error instanceof InputError ? why : `The photo was not kept: ${why} Choose it again.`);
    } finally {
      this.busy.set(false);
    }
  }
}
