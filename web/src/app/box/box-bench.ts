import { Injectable, computed, inject } from '@angular/core';
import {
  boxRound,
  boxSubjects,
  gearPairs,
  keyOfSubject,
  pairName,
  type BoxInside,
  type BoxPairSpec,
  type BoxShaftSpec,
  type SubjectOf,
} from '@hot-spline/model';
import { isReverse, type BoxShaft } from '@hot-spline/core';
import { Bench } from '../state/bench';

export const SHAFTS = [
  { shaft: 'driven', name: 'Driven shaft' },
  { shaft: 'driving', name: 'Driving shaft' },
] as const satisfies readonly { shaft: BoxShaft; name: string }[];

/** The box of the open build, as its tabs see it. */
@Injectable({ providedIn: 'root' })
export class BoxBench {
  readonly bench = inject(Bench);
  /** As it is shown: with a pair that is looked at, where one is. */
  readonly inside = computed<BoxInside | null>(() => this.bench.build()?.box ?? null);
  /** As it is kept. */
  readonly kept = computed<BoxInside | null>(() => this.bench.editor().present?.box ?? null);
  readonly state = computed(() => this.bench.derived()?.box ?? null);
  readonly gears = computed(() => {
    const inside = this.inside();
    return inside ? gearPairs(inside) : [];
  });
  readonly round = computed(() => {
    const inside = this.kept();
    return inside ? boxRound(inside, this.bench.build()?.boxWork ?? null) : null;
  });

  name(pair: Pick<BoxPairSpec, 'id' | 'constant' | 'idler'>): string {
    const inside = this.inside();
    return inside ? pairName(inside, pair) : '';
  }

  /** What a pair is called in a word, on a picture: its gear, R or c. */
  short(id: string | null): string {
    const pair = this.inside()?.pairs.find((one) => one.id === id);
    if (!pair) return '';
    return pair.constant ? 'c' : isReverse(pair) ? 'R' : String(this.gears().indexOf(pair) + 1);
  }

  change(recipe: (inside: BoxInside) => void): boolean {
    return this.bench.change((draft) => {
      if (draft.box) recipe(draft.box);
    });
  }

  changeShaft(shaft: BoxShaft, change: Partial<BoxShaftSpec>): void {
    this.change((inside) => Object.assign(inside.shafts[shaft], change));
  }

  /** Whether something of this subject has been written and stands. */
  done(subject: SubjectOf): boolean {
    return this.bench.readings().has(keyOfSubject(subject));
  }

  entry(subject: SubjectOf) {
    const value = this.bench.readingOf(subject)?.value;
    return value?.of === 'number' ? (value.entries[0] ?? null) : null;
  }

  /** A step of the round in hand, as it is ticked off. */
  step(way: 'apart' | 'together', id: string): SubjectOf {
    return boxSubjects.boxStep.of({ way, round: String(this.round()?.round ?? 1), step: id });
  }
}
