import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { InputError } from '@hot-spline/core';
import type { GaugeSent } from '@hot-spline/model';
import { Store } from '@ngrx/store';
import { Bench } from '../state/bench';
import { Presence } from '../state/presence';
import { Puts } from '../state/puts';
import { ReadBy } from '../state/read-by';
import { uiFeature } from '../state/ui';
import { editorFeature } from '../state/editor';
import { Gauge, type GaugeTarget } from '../gauge/gauge';
import { Assumed } from './assumed';
import { Drafts } from './drafts';
import { TermButton } from './term-button';
import type { TermName } from './terms';

/** What a gauge may read into a field. */
export type GaugeOffer = Pick<GaugeTarget, 'quantity' | 'scale' | 'truth' | 'many'>;

/** What a field made of the text: the value, and how it says so. */
export interface Understood<T> {
  readonly value: T;
  readonly said: string;
  /** Asked once before the value is taken: it can be read, but is hard to believe. */
  readonly ask?: string;
  /** What may have been meant instead: a button each, and nothing is written until one is pressed. */
  readonly choices?: readonly { readonly label: string; readonly value: T }[];
  /** How it is said that the value is meant as it was typed; null where it can't be. */
  readonly really?: string | null;
}

/**
 * One text field of the house. It shows at once what it understood; Enter takes it, and so does leaving the field
 * unless `enterOnly`; Escape goes back. Text that can't be taken stays where it was typed, over a reload too.
 */
@Component({
  selector: 'hs-field',
  imports: [Assumed, TermButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="name()" [class.visually-hidden]="labelHidden()"
      >{{ label() }}
      @if (of(); as what) {
        <span class="visually-hidden">, {{ what }}</span>
      }
    </label>
    @if (term(); as word) {
      <hs-term [word]="word" />
    }
    <div class="box">
      <input
        #box
        class="control mono"
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        [id]="name()"
        [attr.inputmode]="mode()"
        [class.big]="big()"
        [class.assumed]="assumed()"
        [value]="shown()"
        [placeholder]="placeholder()"
        [attr.data-unsaved]="draft() === null ? 'no' : 'yes'"
        [attr.aria-invalid]="error() !== null"
        [attr.aria-describedby]="name() + '-said'"
        (input)="type(box.value)"
        (keydown.enter)="take(); $event.preventDefault()"
        (keydown.escape)="escape(); $event.stopPropagation()"
        (keydown.space)="takeGauge($event)"
        (focus)="aim()"
        (blur)="leave()"
      />
      @if (enterOnly() && ready()) {
        <button type="button" class="quiet take" (mousedown)="$event.preventDefault()" (click)="take()">
          {{ verb() }}
        </button>
      }
    </div>
    <div
      class="below"
      [class.none]="compact() && !assumed() && hint() === '' && meanwhile() === null && other() === ''"
    >
      @if (assumed()) {
        <hs-assumed [path]="path()" [what]="label() + ' ' + text()" />
      }
      <div
        class="words"
        [class.over]="over()"
        [class.wrong]="error() !== null"
        [class.doubt]="question() !== null || meanwhile() !== null"
        [class.end]="end()"
      >
        <p [id]="name() + '-said'" class="said" aria-live="polite">{{ error() ?? question() ?? said() }}</p>
        @if (meanwhile() !== null) {
          <p class="said" role="alert">
            Meanwhile it became {{ meanwhile() === '' ? 'nothing' : '“' + meanwhile() + '”' }}.
          </p>
          <div class="ask" role="group" [attr.aria-label]="'Changed meanwhile, ' + label()">
            <button type="button" class="quiet" (mousedown)="$event.preventDefault()" (click)="keepMine()">
              Keep “{{ draft() }}”
            </button>
            <button type="button" class="quiet" (mousedown)="$event.preventDefault()" (click)="back()">
              Take {{ meanwhile() === '' ? 'nothing' : '“' + meanwhile() + '”' }}
            </button>
          </div>
        } @else if (other(); as who) {
          <p class="said other" role="status">{{ who }} types here.</p>
        }
        @if (question() !== null && meanwhile() === null) {
          <div class="ask" role="group" [attr.aria-label]="'What was meant, ' + label()">
            @for (choice of choices(); track choice.label) {
              <button type="button" class="quiet" (mousedown)="$event.preventDefault()" (click)="choose(choice.value)">
                {{ choice.label }}
              </button>
            }
            @if (really(); as words) {
              <button type="button" class="quiet" (mousedown)="$event.preventDefault()" (click)="insist()">
                {{ words }}
              </button>
            }
            <button type="button" class="quiet" (mousedown)="$event.preventDefault()" (click)="back()">No</button>
          </div>
        }
      </div>
    </div>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      min-width: 0;
    }
    label {
      display: inline-block;
      margin-bottom: 2px;
      font-size: var(--text-s);
      color: var(--soft);
    }
    .below {
      position: relative;
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0 6px;
      min-height: 16px;
      margin-top: 1px;
    }
    .assumed {
      color: var(--soft);
      border-style: dashed;
    }
    .box {
      display: flex;
      gap: 4px;
    }
    .big {
      font-size: var(--text-l);
    }
    .take {
      flex: none;
      border-color: var(--blue);
      color: var(--blue);
    }
    .said {
      font-size: var(--text-xs);
      line-height: 16px;
      color: var(--soft);
      overflow-wrap: anywhere;
    }
    .none {
      min-height: 0;
      margin: 0;
    }
    /* Over what comes below: words that come and go shove nothing. */
    .over {
      position: absolute;
      top: 0;
      left: -1px;
      z-index: 4;
      width: max-content;
      min-width: 100%;
      max-width: min(340px, 90vw);
      padding: 2px 7px;
      background: var(--sheet);
      border: 1px solid var(--field);
      border-radius: var(--radius);
      scroll-margin: 8px 0 110px;
    }
    .over.end {
      left: auto;
      right: -1px;
    }
    .doubt {
      border-color: var(--ochre);
    }
    .doubt .said {
      color: var(--ochre-text);
    }
    .wrong {
      border-color: var(--stop);
    }
    .wrong .said {
      color: var(--stop);
    }
    .ask {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      padding: 4px 0;
    }
  `,
})
export class Field<T> {
  /** Id of the input; findings jump to it. */
  readonly name = input.required<string>();
  readonly label = input.required<string>();
  readonly text = input.required<string>();
  readonly read = input.required<(text: string) => Understood<T>>();
  /** Said while nothing is being typed. */
  readonly hint = input('');
  readonly placeholder = input('');
  readonly mode = input<'decimal' | 'text' | 'numeric'>('text');
  /** What it belongs to, for whoever does not see where it stands. */
  readonly of = input('');
  readonly labelHidden = input(false);
  /** Path of the build that this field says; while nobody has said it, the field shows a stand-in. */
  readonly path = input('');
  readonly big = input(false);
  readonly enterOnly = input(false);
  /** What the button of such a field does. */
  readonly verb = input('Record');
  /** The word of the label that is explained at the place. */
  readonly term = input<TermName | null>(null);
  /** Keeps no room free below for what it understood. */
  readonly compact = input(false);
  /** What a gauge can read into it; null where it reads nothing. */
  readonly gauge = input<GaugeOffer | null>(null);
  readonly taken = output<T>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly gauges = inject(Gauge);
  private readonly bench = inject(Bench);
  protected readonly assumed = computed(() => this.path() !== '' && this.bench.assumed(this.path()));
  private readonly drafts = inject(Drafts);
  private readonly store = inject(Store);
  private readonly buildId = this.store.selectSignal(editorFeature.selectId);
  private readonly system = this.store.selectSignal(uiFeature.selectSystem);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly draft = signal<string | null>(null);
  private readonly insisted = signal(false);
  /** Why this device could not keep what was written last. */
  private readonly notKept = signal<string | null>(null);
  private readonly puts = inject(Puts);
  private readonly readBy = inject(ReadBy);
  /** What a gauge wrote into the field, and what it had sent for it. */
  private sent: { readonly text: string; readonly sent: GaugeSent } | null = null;
  /** The text that was asked about: taken when it is insisted on. */
  private readonly asked = signal<string | null>(null);

  /** What the field said when somebody began to type into it. */
  private readonly base = signal<string | null>(null);
  /** What somebody else made of it while somebody types here; null: nothing else. */
  protected readonly meanwhile = computed(() => {
    const [draft, base, text] = [this.draft(), this.base(), this.text()];
    // Of a spec of the library both are kept, and asked about on its page.
    return this.buildId() === null || draft === null || base === null || text === base || text === draft ? null : text;
  });
  private readonly presence = inject(Presence);
  /** Who else types in it. */
  protected readonly other = computed(() => this.presence.in(this.name()));

  private readonly key = computed(() => `${this.buildId() ?? ''}.${this.name()}`);
  protected readonly shown = computed(() => this.draft() ?? this.text());
  private readonly understood = computed<Understood<T> | InputError | null>(() => {
    const draft = this.draft();
    if (draft === null) return null;
    try {
      return this.read()(draft);
    } catch (error) {
      if (error instanceof InputError) return error;
      throw error;
    }
  });
  protected readonly ready = computed(() => {
    const understood = this.understood();
    return understood !== null && !(understood instanceof InputError);
  });
  protected readonly error = computed(() => {
    const why = this.notKept();
    if (why !== null) return `Not recorded: this device could not keep it (${why}). It stands here as it was typed.`;
    const understood = this.understood();
    return understood instanceof InputError && this.insisted()
      ? `${understood.message} Allowed: ${understood.allowed}`
      : null;
  });
  protected readonly question = computed(() => {
    const understood = this.understood();
    if (understood === null || understood instanceof InputError || this.asked() !== this.draft()) return null;
    return understood.ask ?? null;
  });
  private readonly doubted = computed(() => {
    const understood = this.understood();
    return understood === null || understood instanceof InputError ? null : understood;
  });
  protected readonly choices = computed(() => this.doubted()?.choices ?? []);
  protected readonly really = computed(() => {
    const doubted = this.doubted();
    return doubted?.really === undefined ? 'Yes, write it' : doubted.really;
  });
  protected readonly said = computed(() => {
    const understood = this.understood();
    if (understood instanceof InputError) return '…';
    return understood?.said ?? this.hint();
  });

  /** What is said only now stands over what lies below. */
  protected readonly over = computed(
    () =>
      this.error() !== null ||
      this.question() !== null ||
      this.meanwhile() !== null ||
      (this.compact() && this.draft() !== null && this.said() !== ''),
  );
  /** Laid towards the left, where there is no room to the right. */
  protected readonly end = signal(false);

  constructor() {
    // A draft belongs to its field: it comes back after a reload, and when the field starts to stand for another thing.
    // What goes there has changed while the cursor stayed: the next place, another truth.
    effect(() => {
      this.gauge();
      this.label();
      untracked(() => {
        if (document.activeElement === this.box().nativeElement) this.aim();
      });
    });
    effect(() => {
      // A question and an error are seen, also of a field that lies low or at the right.
      const read = this.question() !== null || this.error() !== null;
      if (!this.over()) this.end.set(false);
      else setTimeout(() => this.bringIntoSight(read));
    });
    effect(() => {
      // Other units say the same in other words.
      this.system();
      untracked(() => this.base.update((base) => (base === null ? null : this.text())));
    });
    effect(() => {
      const kept = this.drafts.read(this.key());
      untracked(() => {
        this.draft.set(kept);
        this.base.set(kept === null ? null : this.text());
        this.insisted.set(kept !== null);
      });
    });
  }

  private bringIntoSight(scroll: boolean): void {
    const words = this.host.nativeElement.querySelector('.words');
    const room = this.host.nativeElement.closest('main, dialog, [role="dialog"]')?.getBoundingClientRect();
    if (!words || !room) return;
    if (words.getBoundingClientRect().right > room.right) this.end.set(true);
    if (scroll) words.scrollIntoView({ block: 'nearest' });
  }

  /** The gauge goes where the cursor is. */
  protected aim(): void {
    const offer = this.gauge();
    if (!offer) return;
    this.gauges.aim({
      ...offer,
      name: this.name(),
      label: this.label(),
      write: (text, sent) => {
        this.setDraft(text);
        this.sent = { text, sent };
        this.take();
      },
    });
  }

  protected takeGauge(event: Event): void {
    if (this.gauge() && this.gauges.status() !== 'off' && this.draft() === null && this.gauges.take())
      event.preventDefault();
  }

  focus(): void {
    this.box().nativeElement.focus();
    this.box().nativeElement.select();
  }

  protected type(text: string): void {
    this.setDraft(text === this.text() ? null : text);
    this.insisted.set(false);
    this.notKept.set(null);
  }

  protected take(): void {
    const understood = this.understood();
    if (understood === null) return;
    // Two on one field: neither is written over the other unasked.
    if (this.meanwhile() !== null) return this.host.nativeElement.querySelector<HTMLElement>('.ask button')?.focus();
    this.insisted.set(true);
    if (understood instanceof InputError) return;
    if (understood.ask !== undefined) {
      if (this.asked() !== this.draft()) return this.asked.set(this.draft());
      // Pressed again where there is something to choose from: it is chosen, not guessed.
      if (this.choices().length > 0) return this.host.nativeElement.querySelector<HTMLElement>('.ask button')?.focus();
    }
    this.write(understood.value);
  }

  /** What was typed here, over what somebody else wrote meanwhile. */
  protected keepMine(): void {
    this.base.set(this.text());
    this.take();
  }

  /** As it was typed after all. */
  protected insist(): void {
    const doubted = this.doubted();
    if (doubted) this.choose(doubted.value);
  }

  protected choose(value: T): void {
    this.write(value);
    this.box().nativeElement.focus();
  }

  private write(value: T): void {
    const text = this.draft();
    const before = this.puts.newest;
    this.asked.set(null);
    this.notKept.set(null);
    this.setDraft(null);
    // Only the text that the gauge wrote is the gauge's: typed over, it is somebody's word.
    this.readBy.during(this.sent?.text === text ? this.sent.sent : null, () => this.taken.emit(value));
    this.sent = null;
    const put = this.puts.newest;
    if (put === null || put === before) return;
    put.catch((error: unknown) => {
      // What this device could not keep stands where it was typed, with why.
      if (this.draft() === null) this.setDraft(text);
      this.notKept.set(error instanceof Error ? error.message : String(error));
    });
  }

  protected leave(): void {
    if (this.draft() === null) return;
    if (this.enterOnly()) this.insisted.set(true);
    else if (this.question() === null && this.meanwhile() === null) {
      this.take();
      // What is asked on leaving is answered where it was typed.
      if (this.question() !== null) setTimeout(() => this.box().nativeElement.focus());
    }
  }

  /** Back to what was there; once more, out of the field. */
  protected escape(): void {
    if (this.draft() !== null || this.notKept() !== null) return this.back();
    this.box().nativeElement.blur();
    // Onto the sheet, where single keys are commands again.
    document.getElementById('sheet')?.focus({ preventScroll: true });
  }

  protected back(): void {
    this.setDraft(null);
    this.asked.set(null);
    this.notKept.set(null);
    this.insisted.set(false);
  }

  private setDraft(text: string | null): void {
    if (text === null) this.base.set(null);
    else if (this.draft() === null) this.base.set(this.text());
    this.presence.types(text === null ? '' : this.name());
    this.draft.set(text);
    this.drafts.write(this.key(), text);
  }
}
