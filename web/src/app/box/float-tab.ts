import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { InputError, entryBase, say, type BoxShaft, type Entry } from '@hot-spline/core';
import { MOST_READINGS, boxFigures, boxSubjects, type FloatTry } from '@hot-spline/model';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { VerdictMark } from '../shared/verdict';
import { VoidButton } from '../shared/void-button';
import { Library } from '../state/library';
import { BoxBench, SHAFTS } from './box-bench';
import { PracticeFloats } from './practice-floats';

/** End float as a job of its own: a shim, its float read until it repeats, the next shim out of the drawer, approved. */
@Component({
  selector: 'hs-box-float',
  imports: [EntryField, FigureButton, VerdictMark, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './float-tab.html',
  styleUrl: './float-tab.scss',
})
export class FloatTab {
  protected readonly box = inject(BoxBench);
  private readonly library = inject(Library);
  protected readonly truth = inject(PracticeFloats);
  protected readonly figures = boxFigures;
  protected readonly shim = boxSubjects.boxShim.value;
  protected readonly float = boxSubjects.boxFloat.value;
  protected readonly runOut = boxSubjects.boxRunOut.value;
  protected readonly subjects = boxSubjects;

  private findings(shaft: BoxShaft) {
    const system = this.box.bench.system();
    return (this.box.bench.derived()?.findings ?? [])
      .filter(({ id }) => id === `box.float.${shaft}` || id.startsWith(`box.run-out.${shaft}`))
      .map((one) => ({ ...one.say(system), verdict: one.verdict, id: one.id }));
  }

  /** Pieces of the shop’s box drawers that come nearest to a thickness: one at most is left in the seat. */
  private fromDrawer(mm: number): string {
    const stock = this.library
      .active()
      .flatMap(({ spec }) => (spec.kind === 'shims' && spec.seat === 'box' ? spec.pieces : []))
      .flatMap(({ thickness, count }) => (count > 0 ? [thickness] : []));
    if (stock.length === 0) return 'No drawer of box shims is in the library.';
    const best = stock.reduce((a, b) => (Math.abs(entryBase(b) - mm) < Math.abs(entryBase(a) - mm) ? b : a));
    const off = entryBase(best) - mm;
    const by = say(Math.abs(off), 'length', this.box.bench.system(), undefined, 'small');
    return `Nearest in the drawer: ${best.typed}${Math.abs(off) < 5e-4 ? '' : `, ${by} ${off > 0 ? 'more' : 'less'}`}.`;
  }

  protected readonly shafts = computed(() => {
    const state = this.box.state();
    const inside = this.box.inside();
    if (!state || !inside) return [];
    return SHAFTS.map(({ shaft, name }) => {
      const job = state.floats[shaft];
      // What is written next: the float of the last shim while it does not count, else another shim.
      const attempt = Math.max(1, job.number);
      const keys = { shaft, attempt: String(attempt) };
      return {
        shaft,
        name,
        job,
        attempt,
        keys,
        next: { shaft, attempt: String(attempt + 1) },
        findings: this.findings(shaft),
        drawer: job.nextShimMm !== null && job.inBand === false ? this.fromDrawer(job.nextShimMm) : '',
        tries: job.tries.map((one) => ({ ...one, said: this.said(one) })),
        band: inside.shafts[shaft].float,
      };
    });
  });

  private said({ reading, counts, spreadMm }: FloatTry): string {
    if (!reading) return 'not read';
    if (counts) return 'counts';
    const system = this.box.bench.system();
    return reading.value.of === 'number' && reading.value.entries.length === 1
      ? 'one reading alone does not count'
      : `${say(spreadMm, 'length', system, undefined, 'small')} apart: does not count`;
  }

  protected text(mm: number | null): string {
    return mm === null ? '–' : say(mm, 'length', this.box.bench.system(), undefined, 'small');
  }

  protected writeShim(keys: { readonly shaft: BoxShaft; readonly attempt: string }, entry: Entry): void {
    this.box.bench.record(boxSubjects.boxShim.of(keys), entry, 'Micrometer');
  }

  /** A reading more of the same shim is a repeat: all of them stand together, and are judged together. */
  protected writeFloat(keys: { readonly shaft: BoxShaft; readonly attempt: string }, taken: TakenEntry): void {
    const subject = boxSubjects.boxFloat.of(keys);
    const before = this.box.bench.readingOf(subject)?.value;
    const had = before?.of === 'number' ? before.entries : [];
    const all = [...had, ...(taken.several ?? [taken.entry])];
    // Old ones are not let go of in silence: what they say would change with them.
    if (all.length > MOST_READINGS)
      this.box.bench.refuse(
        new InputError(
          'float',
          `${MOST_READINGS} repeats are enough: void them, or read another shim.`,
          `${MOST_READINGS} at most`,
        ),
      );
    else this.box.bench.record(subject, all, 'Dial indicator, magnetic base');
  }

  protected approve(keys: { readonly shaft: BoxShaft; readonly attempt: string }): void {
    this.box.bench.record(boxSubjects.boxApproved.of(keys), { of: 'choice', choice: 'approved' }, 'By hand');
  }

  protected writeRunOut(shaft: BoxShaft, when: 'before' | 'after', entry: Entry): void {
    this.box.bench.record(boxSubjects.boxRunOut.of({ shaft, when }), entry, 'Dial indicator, V-blocks');
  }
}
