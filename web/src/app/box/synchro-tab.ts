import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Entry } from '@hot-spline/core';
import { boxSubjects, hubName, pairName, type ReadingValue, type SubjectOf } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { Choice } from '../shared/choice';
import { BoxBench } from './box-bench';

const PARTS = boxSubjects.SYNCHRO_PARTS.map((part) => ({ part, label: `${part[0]?.toUpperCase()}${part.slice(1)}` }));
const STATES = [
  { value: '', label: 'not looked at' },
  ...boxSubjects.SYNCHRO_STATES.map((value) => ({ value, label: value })),
];
const DRAGS = [{ value: '', label: 'not felt' }, ...boxSubjects.DRAGS.map((value) => ({ value, label: value }))];

/** What synchronises each gear: looked at part by part, drag felt, play of the hub measured. */
@Component({
  selector: 'hs-box-synchro',
  imports: [Choice, EntryField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './synchro-tab.html',
  styles: `
    :host {
      display: grid;
      gap: 16px;
      padding-bottom: 12px;
    }
    .gear {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(110px, 1fr));
      gap: 8px 12px;
      align-items: end;
      padding-bottom: 10px;
      border-bottom: 1px solid var(--rule);
    }
    .gear h2 {
      align-self: center;
      font-size: var(--text-m);
    }
    .hubs {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
      gap: 8px 12px;
    }
  `,
})
export class SynchroTab {
  protected readonly box = inject(BoxBench);
  protected readonly parts = PARTS;
  protected readonly states = STATES;
  protected readonly drags = DRAGS;
  protected readonly subjects = boxSubjects;
  protected readonly play = boxSubjects.hubPlay.value;

  private choice(subject: SubjectOf): string {
    const value = this.box.bench.readingOf(subject)?.value;
    return value?.of === 'choice' ? value.choice : '';
  }

  protected readonly gears = computed(() => {
    const inside = this.box.inside();
    if (!inside) return [];
    return this.box.gears().map((pair) => ({
      id: pair.id,
      name: pairName(inside, pair),
      parts: PARTS.map(({ part, label }) => ({
        part,
        label,
        value: this.choice(boxSubjects.synchroPart.of({ pair: pair.id, part })),
      })),
      drag: this.choice(boxSubjects.synchroDrag.of({ pair: pair.id })),
    }));
  });
  protected readonly hubs = computed(() => {
    const [inside, state] = [this.box.inside(), this.box.state()];
    if (!inside || !state) return [];
    return [...inside.shafts.driven.pieces, ...inside.shafts.driving.pieces]
      .filter(({ kind }) => kind === 'hub')
      .map(({ id }) => ({
        id,
        name: hubName(inside, state.judged, id),
        entry: this.box.entry(boxSubjects.hubPlay.of({ hub: id })),
      }));
  });
  protected readonly left = computed(() => {
    const all = this.gears().flatMap(({ parts, drag }) => [...parts.map(({ value }) => value), drag]);
    return { seen: all.filter((value) => value !== '').length, all: all.length };
  });

  private said(subject: SubjectOf, choice: string): void {
    if (choice === '') return;
    const value: ReadingValue = { of: 'choice', choice };
    this.box.bench.record(subject, value, 'By eye');
  }

  protected setPart(pair: string, part: (typeof boxSubjects.SYNCHRO_PARTS)[number], choice: string): void {
    this.said(boxSubjects.synchroPart.of({ pair, part }), choice);
  }

  protected setDrag(pair: string, choice: string): void {
    this.said(boxSubjects.synchroDrag.of({ pair }), choice);
  }

  protected setPlay(hub: string, entry: Entry): void {
    this.box.bench.record(boxSubjects.hubPlay.of({ hub }), entry, 'Dial indicator, magnetic base');
  }
}
