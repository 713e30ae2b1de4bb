import { Injectable, computed, inject } from '@angular/core';
import { entryBase, saySmall, type UnitSystem } from '@hot-spline/core';
import { tooCoarse, turningText, type Instrument, type Setup } from '@hot-spline/model';
import { Library } from '../state/library';
import { SetUp } from './set-up';

export type GaugeUse = keyof Setup['gauges'];

const LABELS: Readonly<Record<GaugeUse, string>> = {
  backlash: 'Backlash is read with',
  turning: 'Torque is read with',
};
/** Ours: a check older than a year is said. */
const CHECK_DAYS = 365;

const reads = ({ reads: scale }: Instrument, of: GaugeUse): boolean =>
  of === 'backlash' ? scale.of === 'length' : scale.of === 'torque' && scale.use === 'turning';

const textOf = (base: number, of: GaugeUse, system: UnitSystem): string =>
  of === 'backlash' ? saySmall(base, system) : turningText(base, system);

/** The shop's instruments for a set-up: which one reads what, and whether it can tell in from out. */
@Injectable({ providedIn: 'root' })
export class GaugeChoice {
  private readonly setUp = inject(SetUp);
  private readonly instruments = inject(Library).ofKind('instrument');

  /** A unit whose one shim sets end float has no torque to read. */
  private readonly float = computed(() => this.setUp.identity()?.construction.value === 'electric-reduction');
  readonly gauges = computed(() =>
    (this.float() ? (['backlash'] as const) : (['backlash', 'turning'] as const)).map((of) => this.one(of)),
  );

  private one(of: GaugeUse) {
    const system = this.setUp.bench.system();
    const chosen = this.setUp.setup()?.gauges[of] ?? null;
    const fitting = this.instruments().filter(({ spec }) => reads(spec, of));
    const known = fitting.find(({ spec }) => spec.name === chosen?.name);
    const good = (base: number): string => `± ${textOf(base, of, system)}`;
    return {
      of,
      label: this.float() ? 'End float is read with' : LABELS[of],
      value: known?.id ?? (chosen ? 'told' : ''),
      options: [
        { value: '', label: 'not said' },
        ...(chosen && !known
          ? [{ value: 'told', label: `${chosen.name || 'told'}, ${good(entryBase(chosen.plusMinus))}` }]
          : []),
        ...fitting.map(({ id, spec }) => ({
          value: id,
          label: `${spec.name}, ${good(entryBase(spec.reads.plusMinus))}`,
        })),
      ],
      problem: chosen ? this.problem(of, entryBase(chosen.plusMinus), known?.spec ?? null) : null,
    };
  }

  /** Why it can't be used as it is, before it is used; null where it can. */
  private problem(of: GaugeUse, plusMinus: number, instrument: Instrument | null): string | null {
    const system = this.setUp.bench.system();
    const sheet = this.setUp.identity()?.sheet;
    const told = this.float()
      ? sheet?.endFloat
      : of === 'backlash'
        ? sheet?.backlash
        : (sheet?.pinionTorqueNew ?? sheet?.pinionTorqueUsed);
    if (told) {
      const band = [entryBase(told.value.low), entryBase(told.value.high)] as const;
      if (tooCoarse(plusMinus, band))
        return `Cannot judge: ± ${textOf(plusMinus, of, system)} in a band of ${textOf(band[1] - band[0], of, system)}. Take a finer one.`;
      if (instrument && (entryBase(instrument.reads.from) > band[0] || entryBase(instrument.reads.to) < band[1]))
        return `${instrument.name} does not reach: the band is ${textOf(band[0], of, system)} to ${textOf(band[1], of, system)}.`;
      if (instrument && entryBase(instrument.reads.resolution) >= band[1] - band[0])
        return `Cannot judge: one step of ${instrument.name} is as wide as the band.`;
    }
    if (instrument?.checked === null) return `${instrument.name}: nobody has said when it was checked.`;
    const days = instrument ? (Date.now() - Date.parse(instrument.checked ?? '')) / 86_400_000 : 0;
    return instrument && days > CHECK_DAYS
      ? `${instrument.name} was checked last on ${instrument.checked}: more than a year ago (guard of ours).`
      : null;
  }

  choose(of: GaugeUse, id: string): void {
    if (id === 'told') return;
    const spec = this.instruments().find((one) => one.id === id)?.spec ?? null;
    this.setUp.change(({ gauges }) => {
      gauges[of] = spec && { name: spec.name, plusMinus: spec.reads.plusMinus };
    });
  }
}
