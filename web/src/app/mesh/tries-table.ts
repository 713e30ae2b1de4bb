import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { formatIn, unitLabel } from '@hot-spline/core';
import { TRIAL_KEYS, TRIAL_WORDS, patchWords, type AssemblyState, type Trial } from '@hot-spline/model';
import { VoidButton } from '../shared/void-button';
import { piecesText } from './pieces';
import { SetUp } from './set-up';

/** Everything that was tried on this axle, newest first; a try that is voided loses its influence. */
@Component({
  selector: 'hs-tries',
  imports: [VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length) {
      <div class="scroll">
        <table class="table">
          <caption class="visually-hidden">
            Every try
          </caption>
          <thead>
            <tr>
              <th scope="col">Try</th>
              <th scope="col">Pinion shim</th>
              <th scope="col">Sides</th>
              <th scope="col">Backlash</th>
              <th scope="col">Drive side</th>
              <th scope="col">Coast side</th>
              <th scope="col"><span class="visually-hidden">Void</span></th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.key) {
              <tr>
                <th scope="row">{{ row.name }}</th>
                <td class="mono">{{ row.shim }}</td>
                <td class="mono">{{ row.sides }}</td>
                <td class="mono">
                  {{ row.backlash }}
                  @if (row.state) {
                    <span class="state">{{ row.state }}</span>
                  }
                  @if (row.backlashId) {
                    <hs-void [id]="row.backlashId" [what]="'backlash of ' + row.name" />
                  }
                </td>
                <td>{{ row.drive }}</td>
                <td>
                  {{ row.coast }}
                  @if (row.patternId) {
                    <hs-void [id]="row.patternId" [what]="'pattern of ' + row.name" />
                  }
                </td>
                <td><hs-void [id]="row.id" [what]="row.name + ', all of it'" /></td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    } @else {
      <p class="soft">Nothing put together yet.</p>
    }
  `,
  styles: `
    .scroll {
      overflow-x: auto;
    }
    .state {
      display: block;
      font: var(--text-xs) var(--sans);
      color: var(--soft);
    }
  `,
})
export class TriesTable {
  private readonly setUp = inject(SetUp);
  protected readonly rows = computed(() => {
    const assemblies = this.setUp.mesh()?.assemblies ?? [];
    return assemblies
      .flatMap((one) => {
        const stages = one.backlash.final || one.pattern.final ? (['final', 'trial'] as const) : (['trial'] as const);
        return stages.map((stage) => this.row(one, stage));
      })
      .reverse();
  });

  private row(one: AssemblyState, stage: 'trial' | 'final') {
    const system = this.setUp.bench.system();
    const small = (mm: number): string => formatIn(mm, 'length', system, undefined, 'small').text;
    const [read, seen] = [one.backlash[stage], one.pattern[stage]];
    const { leftNotches, rightNotches } = one.value;
    const byNotches = this.setUp.mesh()?.ringBy === 'adjusters';
    const name = one.number === 0 ? 'as it came' : `assembly ${one.number}`;
    return {
      key: `${one.reading.id}${stage}`,
      id: one.reading.id,
      name: stage === 'final' ? `${name}, final` : name,
      shim: piecesText(one.value.pinion) || 'none',
      sides: byNotches
        ? `${leftNotches} / ${rightNotches} notches`
        : `${piecesText(one.value.left) || '–'} / ${piecesText(one.value.right) || '–'}`,
      backlash: read?.round
        ? `${small(read.round.meanMm)} (${small(read.round.minMm)}–${small(read.round.maxMm)}) ${unitLabel(formatIn(1, 'length', system, undefined, 'small').unit)}`
        : 'not read',
      state: read ? stateWords(read.state) : '',
      backlashId: read?.reading.id ?? null,
      drive: seen ? patchWords(seen.value.drive) : '–',
      coast: seen ? `${patchWords(seen.value.coast)}${seen.counts ? '' : ' (moves nothing)'}` : '–',
      patternId: seen?.reading.id ?? null,
    };
  }
}

/** A state in short: what of it is not as it will run. */
function stateWords(state: Trial): string {
  return TRIAL_KEYS.filter(
    (key) => key === 'caps' || key === 'sidePreload' || key === 'sideBearings' || key === 'pinionBearings',
  )
    .map(
      (key) =>
        `${TRIAL_WORDS[key].label.toLowerCase()} ${(TRIAL_WORDS[key] as Readonly<Record<string, string>>)[state[key]]}`,
    )
    .join(', ');
}
