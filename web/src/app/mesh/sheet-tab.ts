import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { InputError, entryBase, parseEntry, say, type Entry } from '@hot-spline/core';
import {
  ORIGIN_WORDS,
  SHEET_KEYS,
  isWeak,
  originOf,
  setupSubjects,
  sheetField,
  type Origin,
  type SheetKey,
  type SpecSheet,
} from '@hot-spline/model';
import { ORIGIN_OPTIONS } from '../library/words';
import { Choice } from '../shared/choice';
import { Field, type Understood } from '../shared/field';
import { PhotoTaker } from '../shared/photo-taker';
import { textReader } from '../shared/readers';
import { piecesText } from './pieces';
import { SetUp } from './set-up';

type Value = NonNullable<SpecSheet[SheetKey]>['value'];

/** A value of the sheet as text; a band has two ends. */
function textOf(value: Value): string {
  if (typeof value !== 'object') return String(value);
  return 'low' in value ? `${piecesText([value.low])} – ${piecesText([value.high])}` : piecesText([value]);
}

/** The spec sheet of the axle as data: each value with where it was read. */
@Component({
  selector: 'hs-sheet-tab',
  imports: [Choice, Field, PhotoTaker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      What nobody has said the origin of, and what is only said, remembered, borrowed or a guess, plans the work; a step
      that can’t be taken back waits until it is confirmed from a sheet.
    </p>
    <hs-photo-taker what="the sheet’s pages" [photos]="photos()" [keep]="keepPhoto" />
    <div class="rows">
      @for (row of rows(); track row.key) {
        <div class="row" role="group" [attr.aria-label]="row.label" [class.weak]="row.weak">
          <hs-field
            [name]="'sheet-' + row.key + '-' + axle()"
            [label]="row.label"
            [text]="row.text"
            [placeholder]="row.placeholder"
            [read]="row.read"
            (taken)="setValue(row.key, $event)"
          />
          @if (row.told; as told) {
            <hs-choice
              [name]="'origin-' + row.key"
              [label]="'Where ' + row.label.toLowerCase() + ' is from'"
              [labelHidden]="true"
              [options]="origins"
              [value]="told.origin"
              (chosen)="setOrigin(row.key, $event)"
            />
            <hs-field
              [name]="'where-' + row.key"
              [label]="'Page or picture of ' + row.label.toLowerCase()"
              [labelHidden]="true"
              [placeholder]="row.unread ? 'which sheet, page or photo?' : 'sheet, page or photo'"
              [text]="told.where"
              [read]="readWhere"
              [compact]="true"
              (taken)="setWhere(row.key, $event)"
            />
            @if (row.unread) {
              <p class="unread">Only said until here stands where it was read: sheet, page or photo.</p>
            }
          }
        </div>
      }
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    p {
      margin-bottom: 8px;
      font-size: var(--text-s);
    }
    .rows {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 20px 24px;
      margin-top: 12px;
    }
    /* A band with its units, and where it was read, each in full: side by side both would be cut off. */
    .row {
      display: grid;
      grid-template-columns: minmax(8em, 2fr) minmax(0, 3fr);
      gap: 2px 6px;
      align-content: start;
    }
    hs-field:first-child,
    .unread {
      grid-column: 1 / -1;
    }
    .unread {
      margin: 0;
      font-size: var(--text-xs);
      color: var(--ochre-text);
    }
    .weak hs-choice {
      color: var(--ochre-text);
    }
    @media #{$narrow} {
      .rows {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class SheetTab {
  private readonly setUp = inject(SetUp);
  protected readonly axle = this.setUp.axle;
  protected readonly origins = ORIGIN_OPTIONS;
  protected readonly readWhere = textReader('Where', 120);

  protected readonly rows = computed(() => {
    const sheet = this.setUp.identity()?.sheet;
    if (!sheet) return [];
    return SHEET_KEYS.map((key) => {
      const { label, of } = sheetField(key);
      const told = sheet[key];
      return {
        key,
        label,
        told,
        weak: told !== null && isWeak(originOf(told)),
        unread: told !== null && originOf(told) !== told.origin,
        text: told ? textOf(told.value) : '',
        placeholder: of === 'band' ? 'from – to' : '',
        read: this.reader(key),
      };
    });
  });

  private reader(key: SheetKey): (text: string) => Understood<Value | null> {
    const { label, of, quantity, scale, range } = sheetField(key);
    const system = this.setUp.bench.system();
    const one = (text: string): Entry =>
      parseEntry(text, { field: label, quantity, range, system, ...(scale ? { scale } : {}) }).entry;
    const both = (entry: Entry): string => {
      const base = entryBase(entry);
      return `${say(base, quantity, 'inch', undefined, scale)} = ${say(base, quantity, 'metric', undefined, scale)}`;
    };
    return (text) => {
      const typed = text.trim();
      if (typed === '') return { value: null, said: 'none' };
      switch (of) {
        case 'text':
          return { value: textReader(label, 120)(typed).value, said: '' };
        case 'count': {
          const value = Number(typed);
          if (!/^\d{1,4}$/.test(typed) || value < 1 || value > range.max)
            throw new InputError(label, `${label} must be a whole number.`, `1 to ${range.max}`);
          return { value, said: '' };
        }
        case 'one': {
          const entry = one(typed);
          return { value: entry, said: both(entry) };
        }
        case 'band': {
          const [from = '', to = '', ...more] = typed.split(/\s*(?:–|—|\bto\b|;|(?<=\S)\s*-\s*(?=\S))\s*/);
          if (to === '' || more.length > 0) throw new InputError(label, `${label} needs both ends.`, 'e.g. 6 – 10');
          const high = one(to);
          // A bare lower end is in the unit that the upper one names.
          const low = one(/[a-z"″”]/i.test(from) || high.unit === '' ? from : `${from} ${high.unit}`);
          if (entryBase(high) < entryBase(low))
            throw new InputError(label, `${label} is upside down.`, 'the lower limit first');
          return { value: { low, high }, said: `${both(low)} – ${both(high)}` };
        }
      }
    };
  }

  protected setValue(key: SheetKey, value: Value | null): void {
    const known = this.setUp.identity()?.sheet[key];
    const told =
      value === null ? null : { value, origin: known?.origin ?? ('not-said' as const), where: known?.where ?? '' };
    this.setUp.setSheet(key, told as SpecSheet[typeof key]);
  }

  private readonly photosOf = computed(() => setupSubjects.sheetPhoto.of({ axle: this.axle() }));
  protected readonly photos = computed(() => {
    const value = this.setUp.bench.readingOf(this.photosOf())?.value;
    return value?.of === 'photos' ? value.photos : [];
  });
  /** Kept with those that there are. */
  protected readonly keepPhoto = (id: string): void => {
    this.setUp.bench.record(this.photosOf(), { of: 'photos', photos: [...this.photos(), id] }, 'Camera');
  };

  protected setOrigin(key: SheetKey, origin: Origin): void {
    this.confirm(key, { origin });
  }

  private confirm(key: SheetKey, change: { readonly origin: Origin } | { readonly where: string }): void {
    const known = this.setUp.identity()?.sheet[key];
    if (!known) return;
    const now = { ...known, ...change } as typeof known;
    if (now.origin === known.origin && now.where === known.where) return;
    this.setUp.setSheet(key, now as SpecSheet[typeof key]);
    // What only planned and now carries is a decision, with who made it.
    if (isWeak(originOf(known)) && !isWeak(originOf(now)))
      this.setUp.bench.decide(
        `Spec sheet, ${this.axle()}: ${sheetField(key).label.toLowerCase()}`,
        `confirmed: ${textOf(now.value)}, ${ORIGIN_WORDS[originOf(now)]}`,
        now.where,
      );
  }

  protected setWhere(key: SheetKey, where: string): void {
    this.confirm(key, { where });
  }
}
