import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NEW_BOX_ASSUMED, newBox } from '@hot-spline/model';
import { activeTab } from '../shared/active-tab';
import { jumpTo } from '../shared/jump';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { BoxBench } from './box-bench';
import { CountedTab } from './counted-tab';
import { DrumTab } from './drum-tab';
import { FloatTab } from './float-tab';
import { InsideTab } from './inside-tab';
import { LifeTab } from './life-tab';
import { StackTab } from './stack-tab';
import { StepsTab } from './steps-tab';
import { SynchroTab } from './synchro-tab';
import { BOX_TABS } from './tabs';

/** The gearbox from inside: both shafts stacked, floated, shifted, taken apart and put together. */
@Component({
  selector: 'hs-box-sheet',
  imports: [CountedTab, DrumTab, FloatTab, InsideTab, LifeTab, SheetHead, StackTab, StepsTab, SynchroTab, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-sheet-head title="Box" about="Both shafts as they are stacked. Drag a pair on; what does not go is said." />
    @if (box.inside()) {
      <hs-tabs label="Box" [tabs]="tabs()" [active]="active()" />
      @if (broken(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      }
      @switch (active()) {
        @case ('drum') {
          <hs-box-drum />
        }
        @case ('float') {
          <hs-box-float />
        }
        @case ('steps') {
          <hs-box-steps />
        }
        @case ('life') {
          <hs-box-life />
        }
        @case ('synchro') {
          <hs-box-synchro />
        }
        @case ('counted') {
          <hs-box-counted />
        }
        @case ('inside') {
          <hs-box-inside />
        }
        @default {
          <hs-box-stack />
        }
      }
    } @else if (box.bench.build()) {
      <div class="empty">
        <p>Nobody has said what is inside this gearbox: shafts, pairs, hubs, and how it is shifted.</p>
        @if (can()) {
          <button type="button" class="quiet main" (click)="begin()">Describe the box</button>
          <p class="soft">It begins with your teeth and lengths of ours, marked as such until you say yours.</p>
        } @else {
          <p class="soft">Type the gears by their teeth on Engine and gearbox first, 34/21, not as a ratio.</p>
        }
      </div>
    }
  `,
  styleUrls: ['../shared/sheet.scss'],
})
export class BoxSheet {
  readonly at = input<string>();
  readonly tab = input<string>();
  protected readonly box = inject(BoxBench);
  protected readonly active = activeTab(BOX_TABS, this.tab);
  /** A drum where gears are shifted by one, rings where they are synchronised; what is open stays. */
  protected readonly tabs = computed(() => {
    const kind = this.box.bench.build()?.gearbox.kind;
    return BOX_TABS.filter(
      ({ tab }) =>
        tab === this.active() ||
        (tab === 'synchro' ? kind === 'synchro' : tab === 'drum' ? kind === 'sequential' || kind === 'dog' : true),
    );
  });
  protected readonly can = computed(() => {
    const build = this.box.bench.build();
    return build !== null && newBox(build) !== null;
  });
  /** Why nothing can be worked out of it. */
  protected readonly broken = computed(() => {
    if (this.box.state()) return null;
    const found = this.box.bench.derived()?.findings.find(({ id }) => id.startsWith('refused.box.'));
    return found ? found.say(this.box.bench.system()).detail : null;
  });

  constructor() {
    jumpTo(this.at);
  }

  protected begin(): void {
    this.box.bench.change((draft) => {
      draft.box = newBox(draft);
      draft.assumed = [...draft.assumed.filter((path) => !path.startsWith('box')), ...NEW_BOX_ASSUMED];
    });
  }
}
