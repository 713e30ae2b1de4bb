import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { Choice, type Option } from '../shared/choice';
import { download } from '../shared/download';
import { Field } from '../shared/field';
import { countReader } from '../shared/readers';
import { codeSvg } from './code-svg';
import { LABEL_SHEETS, labelSheet, type LabelOf, type LabelSheetName } from './label-sheet';
import { pdfOf } from './pdf';

/** A kind of labels that can be made here. */
export interface LabelKind {
  readonly id: string;
  /** On its button. */
  readonly name: string;
  readonly labels: readonly LabelOf[];
}

/** Labels on sheets: which size, where the first free one lies, how many of each. */
@Component({
  selector: 'hs-label-maker',
  imports: [Choice, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <hs-choice
        name="label-sheet"
        label="Label sheet"
        [options]="sheets"
        [value]="sheet()"
        (chosen)="choose($event)"
      />
      @if (each() > 1) {
        <hs-field
          name="label-first"
          label="First free label"
          mode="numeric"
          [text]="'' + first()"
          [read]="readFirst()"
          [compact]="true"
          (taken)="first.set($event)"
        />
      }
      <hs-field
        name="label-copies"
        label="Of each"
        mode="numeric"
        [text]="'' + copies()"
        [read]="readCopies"
        [compact]="true"
        (taken)="copies.set($event)"
      />
    </div>
    <div class="row">
      @for (kind of kinds(); track kind.id) {
        <button type="button" class="quiet" [disabled]="busy() || kind.labels.length === 0" (click)="make(kind)">
          <i class="pi pi-tag" aria-hidden="true"></i>{{ kind.name }}
          <span class="mono soft">{{ kind.labels.length * copies() }}</span>
        </button>
      }
    </div>
    @if (problem(); as why) {
      <p class="caution" role="alert">{{ why }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: end;
    }
    hs-field {
      max-width: 120px;
    }
  `,
})
export class LabelMaker {
  readonly kinds = input.required<readonly LabelKind[]>();
  protected readonly sheets: readonly Option<LabelSheetName>[] = (Object.keys(LABEL_SHEETS) as LabelSheetName[]).map(
    (value) => ({ value, label: value.replace(',', ' mm,') }),
  );
  protected readonly sheet = signal<LabelSheetName>('70 × 37, 24 on A4');
  protected readonly each = computed(() => LABEL_SHEETS[this.sheet()].across * LABEL_SHEETS[this.sheet()].down);
  protected readonly first = signal(1);
  protected readonly copies = signal(1);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly readFirst = computed(() => countReader('First free label', 1, this.each()));
  protected readonly readCopies = countReader('Of each', 1, 100);

  protected choose(sheet: LabelSheetName): void {
    this.sheet.set(sheet);
    this.first.set(1);
  }

  protected async make({ id, labels }: LabelKind): Promise<void> {
    this.busy.set(true);
    this.problem.set('');
    try {
      const all = labels.flatMap((one) => Array.from({ length: this.copies() }, () => one));
      const pictures = new Map(await Promise.all(labels.map(async ({ code }) => [code, await codeSvg(code)] as const)));
      const svgs = all.map(({ code }) => pictures.get(code) ?? '');
      download(await pdfOf(labelSheet(all, svgs, this.sheet(), this.first() - 1)), `labels-${id}.pdf`);
    } catch (error) {
      console.warn('the labels were not made', error);
      this.problem.set('The labels could not be made. Try once more, or load the page again.');
    } finally {
      this.busy.set(false);
    }
  }
}
