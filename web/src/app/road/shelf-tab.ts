import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { InputError, LIMITS, SEARCH_LIMITS, entryBase, entryOf, type ToothPair } from '@hot-spline/core';
import { freshId, type Shelf, type ShelfPairSpec } from '@hot-spline/model';
import { RemoveButton } from '../shared/remove-button';
import { Choice } from '../shared/choice';
import { EntryField, type TakenEntry } from '../shared/entry-field';
import { Field, type Understood } from '../shared/field';
import { pairsReader } from '../shared/readers';
import { Bench } from '../state/bench';

/** Pairs and final drives that lie on the shelf, and the rules for putting a set together. */
@Component({
  selector: 'hs-shelf-tab',
  imports: [Choice, EntryField, Field, RemoveButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shelf-tab.html',
  styleUrl: './shelf-tab.scss',
})
export class ShelfTab {
  protected readonly bench = inject(Bench);
  protected readonly stepRules: { value: Shelf['steps']; label: string }[] = [
    { value: 'shrinking', label: 'Steps stay equal or shrink upwards' },
    { value: 'descending', label: 'Ratios only have to fall' },
  ];
  protected readonly rpmRange = { min: 0, max: LIMITS.rpm.max, unit: 'rpm' };
  protected readonly marginRange = { min: 0, max: 50, unit: '%' };
  protected readonly torqueRange = { above: 0, max: 1e5, unit: 'N·m' };
  protected readonly readFinals = pairsReader('Final drive');

  protected readonly shelf = computed(() => this.bench.build()?.shelf ?? null);
  /** One column a gear: the pairs that fit it, short ones first. */
  protected readonly columns = computed(() => {
    const build = this.bench.build();
    if (!build) return [];
    return build.gearbox.gears.map((gear, i) => ({
      name: gear.name,
      position: i + 1,
      pairs: build.shelf.pairs
        .filter(({ positions }) => positions.length === 0 || positions.includes(i + 1))
        .sort((a, b) => b.driven / b.driver - a.driven / a.driver),
    }));
  });
  protected readonly full = computed(() => (this.shelf()?.pairs.length ?? 0) >= SEARCH_LIMITS.pairs);

  /** `35/17` driven over driver, several at once with commas; `35/17 260 Nm` with what it stands. */
  protected readPairs(gear: string): (text: string) => Understood<{ driven: number; driver: number }[]> {
    return (text) => {
      const label = `Pairs for ${gear}`;
      const value = text
        .split(',')
        .filter((part) => part.trim() !== '')
        .map((part) => {
          const match = /^\s*(\d{1,3})\s*([/:])\s*(\d{1,3})\s*$/.exec(part);
          const [a, b] = [Number(match?.[1]), Number(match?.[3])];
          // `17:36` is said driver first, as a train of gears runs; `36/17` driven over driver, as its ratio is written.
          const [driven, driver] = match?.[2] === ':' && a < b ? [b, a] : [a, b];
          if (!match || driven < 3 || driver < 3 || driven > 300 || driver > 300)
            throw new InputError(
              label,
              `${label}: “${part.trim()}” is not driven / driver teeth.`,
              'e.g. 35/17, 17:36',
            );
          return { driven, driver };
        });
      if (value.length === 0) throw new InputError(label, `${label} is empty.`, 'e.g. 35/17, 36/17');
      return {
        value,
        said: value.map(({ driven, driver }) => `${driven}/${driver} ${(driven / driver).toFixed(3)}`).join(', '),
      };
    };
  }

  protected ratio({ driven, driver }: ShelfPairSpec): string {
    return (driven / driver).toFixed(3);
  }

  private edit(recipe: (shelf: Shelf) => void): void {
    this.bench.change((draft) => recipe(draft.shelf));
  }

  protected addPairs(position: number, pairs: readonly { driven: number; driver: number }[]): void {
    this.edit((shelf) => {
      for (const { driven, driver } of pairs) {
        const id = freshId(
          shelf.pairs.map((pair) => pair.id),
          's',
        );
        const torqueLimit = shelf.pairs.find((pair) => pair.positions.includes(position))?.torqueLimit ?? null;
        shelf.pairs.push({ id, driver, driven, positions: [position], torqueLimit });
      }
    });
  }

  /** Pairs that nobody said a gear for: each to the gear of the box whose ratio is nearest, as a share. */
  protected sortPairs(pairs: readonly { driven: number; driver: number }[]): void {
    const gears = this.bench.build()?.gearbox.gears ?? [];
    if (gears.length === 0) return;
    const away = (ratio: number, i: number): number =>
      Math.abs(Math.log(ratio / entryBase((gears[i] as (typeof gears)[0]).ratio)));
    this.edit((shelf) => {
      for (const { driven, driver } of pairs) {
        const places = gears.map((_, i) => i);
        const nearest = places.reduce((a, b) => (away(driven / driver, b) < away(driven / driver, a) ? b : a));
        const ids = shelf.pairs.map(({ id }) => id);
        const torqueLimit = shelf.pairs.find(({ positions }) => positions.includes(nearest + 1))?.torqueLimit ?? null;
        shelf.pairs.push({ id: freshId(ids, 's'), driver, driven, positions: [nearest + 1], torqueLimit });
      }
    });
  }

  /** One undo brings them back. */
  protected clear(): void {
    this.edit((shelf) => {
      shelf.pairs = [];
      shelf.finals = [];
    });
  }

  protected removePair(id: string): void {
    this.edit((shelf) => (shelf.pairs = shelf.pairs.filter((pair) => pair.id !== id)));
  }

  protected addFinals(pairs: readonly ToothPair[]): void {
    this.edit((shelf) => {
      for (const pair of pairs)
        if (!shelf.finals.some(({ ring, pinion }) => ring === pair.ring && pinion === pair.pinion))
          shelf.finals.push(pair);
    });
  }

  protected removeFinal(index: number): void {
    this.edit((shelf) => shelf.finals.splice(index, 1));
  }

  protected setSteps(steps: Shelf['steps']): void {
    this.edit((shelf) => (shelf.steps = steps));
  }

  protected setFloor({ base }: TakenEntry): void {
    this.edit((shelf) => (shelf.floorRpm = base));
  }

  protected setMargin({ entry }: TakenEntry): void {
    this.edit((shelf) => (shelf.limiterMargin = entry));
  }

  /** One torque limit for every pair: what the box stands, where pairs have none of their own. */
  protected setTorque({ entry }: TakenEntry): void {
    this.edit((shelf) => shelf.pairs.forEach((pair) => (pair.torqueLimit = entry)));
  }

  protected readonly torque = computed(
    () => this.shelf()?.pairs.find(({ torqueLimit }) => torqueLimit)?.torqueLimit ?? null,
  );

  protected rpmEntry(value: number) {
    return entryOf(value, 'rpm');
  }
}
