import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal, viewChild } from '@angular/core';
import { InputError } from '@hot-spline/core';
import { Outbox } from '../state/outbox';
import { readPhoto } from './photo';
import { Radios } from './radios';

interface Mark {
  readonly kind: 'arrow' | 'circle';
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
}

const COLOUR = '#ffb000';
const KINDS = [
  { value: 'arrow', label: 'Arrow' },
  { value: 'circle', label: 'Circle' },
] as const;

/** Draws arrows and circles on a photo; the marked one is kept beside it. */
@Component({
  selector: 'hs-mark-photo',
  imports: [Radios],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section [attr.aria-label]="'Marks on the photo of ' + what()">
      <div class="tools">
        <hs-radios
          name="mark-kind"
          label="Draw"
          [labelHidden]="true"
          [options]="kinds"
          [value]="kind()"
          (chosen)="kind.set($event)"
        />
        <button type="button" class="quiet" [disabled]="marks().length === 0" (click)="back()">
          Take the last off
        </button>
        <button type="button" class="quiet main" [disabled]="marks().length === 0 || busy()" (click)="keep()">
          Keep it marked
        </button>
        <button type="button" class="quiet bare" (click)="closed.emit()">Close</button>
      </div>
      @if (problem(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      }
      <canvas
        #canvas
        role="img"
        [attr.aria-label]="'Photo of ' + what() + ', ' + marks().length + ' marks. Drag to draw.'"
        (pointerdown)="start($event)"
        (pointermove)="drag($event)"
        (pointerup)="end()"
        (pointercancel)="drop()"
      ></canvas>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      margin-bottom: 12px;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
    }
    .main {
      border-color: var(--blue);
      color: var(--blue);
    }
    canvas {
      max-width: min(100%, 760px);
      border: 1px solid var(--rule);
      touch-action: none;
      cursor: crosshair;
    }
  `,
})
export class MarkPhoto {
  readonly photo = input.required<string>();
  readonly what = input.required<string>();
  /** Id of the marked photo, once the server has it. */
  readonly kept = output<string>();
  readonly closed = output();
  private readonly outbox = inject(Outbox);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly kinds = KINDS;
  protected readonly kind = signal<Mark['kind']>('arrow');
  protected readonly marks = signal<readonly Mark[]>([]);
  private readonly drawing = signal<Mark | null>(null);
  private readonly image = signal<HTMLImageElement | null>(null);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');

  constructor() {
    effect(() => {
      const image = new Image();
      image.onload = () => this.image.set(image);
      image.onerror = () => this.problem.set('The photo can’t be read.');
      image.src = this.outbox.photoAddress(this.photo());
    });
    effect(() => this.draw());
  }

  private draw(): void {
    const [image, canvas] = [this.image(), this.canvas().nativeElement];
    const drawing = this.drawing();
    const marks = [...this.marks(), ...(drawing ? [drawing] : [])];
    if (!image) return;
    canvas.width = image.naturalWidth;
    canvas.height = image.naturalHeight;
    const pen = canvas.getContext('2d');
    if (!pen) return;
    pen.drawImage(image, 0, 0);
    pen.strokeStyle = COLOUR;
    pen.lineCap = 'round';
    pen.lineWidth = Math.max(4, canvas.width / 160);
    for (const { kind, from, to } of marks) {
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const length = Math.hypot(dx, dy);
      pen.beginPath();
      if (kind === 'circle') pen.arc(from[0], from[1], length, 0, 2 * Math.PI);
      else {
        pen.moveTo(...from);
        pen.lineTo(...to);
        const head = Math.max(14, canvas.width / 40);
        const angle = Math.atan2(dy, dx);
        for (const turn of [2.6, -2.6]) {
          pen.moveTo(...to);
          pen.lineTo(to[0] + head * Math.cos(angle + turn), to[1] + head * Math.sin(angle + turn));
        }
      }
      pen.stroke();
    }
  }

  private at({ offsetX, offsetY }: PointerEvent): readonly [number, number] {
    const canvas = this.canvas().nativeElement;
    const scale = canvas.width / canvas.clientWidth;
    return [offsetX * scale, offsetY * scale];
  }

  protected start(event: PointerEvent): void {
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    const at = this.at(event);
    this.drawing.set({ kind: this.kind(), from: at, to: at });
  }

  protected drag(event: PointerEvent): void {
    const drawing = this.drawing();
    if (drawing) this.drawing.set({ ...drawing, to: this.at(event) });
  }

  protected end(): void {
    const drawing = this.drawing();
    this.drawing.set(null);
    // A tap draws nothing.
    if (drawing && Math.hypot(drawing.to[0] - drawing.from[0], drawing.to[1] - drawing.from[1]) > 8)
      this.marks.update((marks) => [...marks, drawing]);
  }

  protected drop(): void {
    this.drawing.set(null);
  }

  protected back(): void {
    this.marks.update((marks) => marks.slice(0, -1));
  }

  protected async keep(): Promise<void> {
    this.busy.set(true);
    const canvas = this.canvas().nativeElement;
    try {
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.9));
      if (!blob) throw new InputError('photo', 'The photo can’t be drawn.', 'another photo');
      const { id, blob: small } = await readPhoto(new File([blob], 'marked.jpg', { type: 'image/jpeg' }));
      await this.outbox.putPhoto(id, small);
      this.kept.emit(id);
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    } finally {
      this.busy.set(false);
    }
  }
}
