import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { JOINT_LIMITS, LIMITS, adapterSetting, entryBase, say, starPattern, type Entry } from '@hot-spline/core';
import { jointSubjects, type JointState, type RoundState } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { SoundButton } from '../shared/sound-button';
import { Bench } from '../state/bench';
import { Sound } from '../state/sound';

const PLACE = { size: 320, ring: 122, bolt: 21 };

/** The bolts drawn up crosswise, round by round: a tap ticks a bolt, the picture shows which is next. */
@Component({
  selector: 'hs-star-tab',
  imports: [EntryField, SoundButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './star-tab.html',
  styleUrl: './star-tab.scss',
})
export class StarTab {
  readonly state = input.required<JointState>();
  private readonly bench = inject(Bench);
  private readonly sound = inject(Sound);
  protected readonly axle = this.bench.axleName;
  protected readonly lengthRange = JOINT_LIMITS.leverMm;
  protected readonly adapterRange = { ...JOINT_LIMITS.lengthMm };
  protected readonly torqueRange = LIMITS.torqueNm;
  protected readonly lever = signal<Entry | null>(null);
  protected readonly adapter = signal<Entry | null>(null);
  /** The round that one is at: the first that is not whole, until another is chosen. */
  protected readonly at = linkedSignal<JointState, string>({
    source: this.state,
    computation: ({ rounds }, before) => {
      const open = rounds.find(({ whole }) => !whole)?.stage ?? rounds.at(-1)?.stage ?? '1';
      const kept = rounds.find(({ stage }) => stage === before?.value);
      return kept && !kept.whole ? kept.stage : open;
    },
  });
  protected readonly round = computed<RoundState | null>(
    () => this.state().rounds.find(({ stage }) => stage === this.at()) ?? null,
  );
  protected readonly ticks = computed(() => this.round()?.ticks ?? []);
  protected readonly order = computed(() => starPattern(this.state().bolts?.count ?? 4));
  protected readonly next = computed(() => this.order().find((bolt) => !this.ticks().includes(String(bolt))) ?? null);
  protected readonly bolts = computed(() => {
    const count = this.order().length;
    return Array.from({ length: count }, (_, i) => {
      const angle = (2 * Math.PI * i) / count - Math.PI / 2;
      const number = i + 1;
      return {
        number,
        x: PLACE.size / 2 + PLACE.ring * Math.cos(angle),
        y: PLACE.size / 2 + PLACE.ring * Math.sin(angle),
        done: this.ticks().includes(String(number)),
        next: this.next() === number,
      };
    });
  });
  protected readonly path = computed(() => {
    const at = (bolt: number) => this.bolts()[bolt - 1];
    const done = this.order().filter((bolt) => this.ticks().includes(String(bolt)));
    const line = [...done.slice(-1), ...(this.next() === null ? [] : [this.next() ?? 1])].map(at);
    return line.length < 2 ? '' : line.map((one) => `${one?.x ?? 0},${one?.y ?? 0}`).join(' ');
  });
  protected readonly size = PLACE.size;
  protected readonly radius = PLACE.bolt;

  protected readonly torque = computed(() => {
    const nm = this.round()?.torqueNm ?? null;
    return nm === null ? '' : say(nm, 'torque', this.bench.system(), 0, 'bolt');
  });
  protected readonly setting = computed(() => {
    const [nm, lever, adapter] = [this.round()?.torqueNm ?? null, this.lever(), this.adapter()];
    if (nm === null || !lever || !adapter) return '';
    const set = adapterSetting({ torqueNm: nm, leverMm: entryBase(lever), adapterMm: entryBase(adapter) });
    return say(set, 'torque', this.bench.system(), 0, 'bolt');
  });

  private readonly now = signal(Date.now());
  /** Minutes that the compound has been open. */
  protected readonly open = computed(() => {
    const since = this.state().openSince;
    return since === null ? null : Math.max(0, Math.floor((this.now() - new Date(since).getTime()) / 60_000));
  });

  constructor() {
    // The star goes round by itself: what is next is said once the bolt before is ticked.
    let said: number | null | undefined;
    effect(() => {
      const [next, round] = [this.next(), untracked(this.round)];
      const before = said;
      said = next;
      if (before === undefined || next === before) return;
      this.sound.say(next === null ? `${round?.label ?? ''}: every bolt.` : `Bolt ${next}.`);
    });
    const timer = setInterval(() => this.now.set(Date.now()), 10_000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  protected tick(bolt: number): void {
    const round = this.round();
    const count = this.state().bolts?.count ?? 0;
    if (!round || round.whole || count === 0) return;
    const name = String(bolt);
    const now = round.ticks;
    const ticks = now.includes(name) ? now.filter((one) => one !== name) : [...now, name];
    // Each bolt is written as it is drawn up: half a round is seen by whoever takes over, on whatever device.
    this.bench.record(
      jointSubjects.ringBolts.of({ axle: this.axle(), stage: round.stage }),
      { of: 'ticks', ticks },
      'Torque wrench',
      { state: { torque: this.torque(), bolts: String(count) } },
    );
  }

  protected compound(choice: 'opened' | 'finished' | 'cleaned'): void {
    this.bench.record(jointSubjects.compoundOpen.of({ axle: this.axle() }), { of: 'choice', choice }, 'By hand');
    this.now.set(Date.now());
  }

  /** Stopped half way: everything is cleaned and begun again, so its rounds no longer count. */
  protected again(): void {
    this.compound('cleaned');
    const { rounds } = this.state();
    for (const { stage } of rounds) {
      const reading = this.bench.readingOf(jointSubjects.ringBolts.of({ axle: this.axle(), stage }));
      if (reading) this.bench.voidEntry(reading.id, 'Cleaned and begun again');
    }
  }
}
