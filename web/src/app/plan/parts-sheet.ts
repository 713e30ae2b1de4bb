import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { say } from '@hot-spline/core';
import {
  PART_STATES,
  TOOL_STATES,
  usedTorque,
  wrenchFit,
  type Work,
  partOf,
  toolOf,
  type ToolId,
} from '@hot-spline/model';
import { Library } from '../state/library';
import { activeTab } from '../shared/active-tab';
import { readDay } from '../shared/day-reader';
import { Field } from '../shared/field';
import { jumpTo } from '../shared/jump';
import { Radios } from '../shared/radios';
import { countReader, numberReader, textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { SheetHead } from '../shared/sheet-head';
import { Tabs } from '../shared/tabs';
import { sayDay } from '../base/day';
import { ShopSettings } from '../state/shop-settings';
import { PARTS_TABS } from './tabs';
import { WorkEdit } from './work-edit';

type PartRow = Work['parts'][number];
type ToolRow = Work['tools'][number];
type TrayRow = Work['trays'][number];

const STATE_OPTIONS = PART_STATES.map((value) => ({ value, label: value }));
const TOOL_OPTIONS = TOOL_STATES.map((value) => ({ value, label: value === 'stand-in' ? 'stand-in' : value }));
const SIDE_OPTIONS = [
  { value: '', label: '–' },
  { value: 'left', label: 'left' },
  { value: 'right', label: 'right' },
] as const;

/** What has to be in the house, what the job is done with, and what came off. */
@Component({
  selector: 'hs-parts-sheet',
  imports: [Field, Radios, RemoveButton, SheetHead, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './parts-sheet.html',
  styleUrls: ['../shared/sheet.scss', './parts-sheet.scss'],
})
export class PartsSheet {
  readonly tab = input<string>();
  readonly at = input<string>();
  protected readonly edit = inject(WorkEdit);
  private readonly library = inject(Library);
  protected readonly names = (parts: readonly { readonly name: string }[]): string =>
    parts.map(({ name }) => name).join(', ');
  private readonly settings = inject(ShopSettings);
  protected readonly tabs = PARTS_TABS;
  protected readonly active = activeTab(PARTS_TABS, this.tab);
  protected readonly axle = this.edit.axle;
  protected readonly states = STATE_OPTIONS;
  protected readonly toolStates = TOOL_OPTIONS;
  protected readonly sides = SIDE_OPTIONS;
  protected readonly day = sayDay;
  protected readonly readDay = readDay;
  protected readonly readName = textReader('Part', 80, 1);
  protected readonly readText = textReader('Text', 120);
  protected readonly readCount = countReader('Count', 0, 1000);
  protected readonly readPrice = numberReader('Price', { min: 0, max: 1e9 });
  protected readonly work = this.edit.work;

  private readonly titles = computed(() => new Map(this.edit.state()?.steps.map(({ step }) => [step.id, step.title])));
  protected readonly parts = computed(() => {
    const needed = new Map<string, readonly string[]>(this.edit.state()?.parts.map(({ id, steps }) => [id, steps]));
    return (this.work()?.parts ?? []).map((part) => ({
      ...part,
      mind: partOf(part.id)?.mind ?? '',
      steps: (needed.get(part.id) ?? []).map((id) => this.titles().get(id) ?? id).join(', '),
    }));
  });
  protected readonly sum = computed(() => {
    const parts = this.work()?.parts ?? [];
    const away = parts.filter(({ state }) => state !== 'here');
    const last = away
      .map(({ promised }) => promised ?? '')
      .sort()
      .at(-1);
    const priced = parts.filter(({ price }) => price !== null);
    return {
      here: parts.length - away.length,
      of: parts.length,
      last: last ? sayDay(last) : '',
      price: priced.length === 0 ? '' : this.settings.say(priced.reduce((sum, { price }) => sum + (price ?? 0), 0)),
    };
  });

  protected readonly tools = computed(() => {
    const known = new Map(this.work()?.tools.map((one) => [one.id, one]));
    return (this.edit.state()?.tools ?? []).map(({ id, steps }) => ({
      ...toolOf(id),
      id,
      steps: steps.map((step) => this.titles().get(step) ?? step).join(', '),
      state: known.get(id)?.state ?? ('' as const),
      with: known.get(id)?.with ?? '',
      back: known.get(id)?.back ?? '',
      pattern: known.get(id)?.pattern ?? '',
      fit: this.fitOf(id),
    }));
  });

  /** Of the adjusters, by the sheet. */
  protected readonly wrenchPattern = computed(
    () => this.edit.bench.axle()?.identity?.sheet.adjusterWrench?.value ?? '',
  );

  /** What this axle asks of a tool: pattern, limit, hand and range. */
  private fitOf(id: ToolId): string {
    const axle = this.edit.bench.axle();
    const sheet = axle?.identity?.sheet;
    if (id === 'adjuster-wrench')
      return sheet?.adjusterWrench
        ? `This carrier’s: ${sheet.adjusterWrench.value}.`
        : 'Nobody has said this carrier’s pattern.';
    if (id === 'spreader')
      return sheet?.spreadLimit
        ? `Spread at most ${sheet.spreadLimit.value.typed}.`
        : 'Nobody has said how far the case may be spread.';
    if ((id === 'torque-wrench' || id === 'left-torque-wrench') && axle) {
      const used = usedTorque(axle);
      const hand = axle.identity?.ringBolts?.value.hand;
      if (!used || !hand) return '';
      const wrenches = this.library.ofKind('instrument')();
      const fits = wrenches
        .filter(({ spec }) => wrenchFit(spec, used.nm, hand) === 'fits')
        .map(({ spec }) => spec.name);
      const asked = `${say(used.nm, 'torque', this.edit.bench.system(), 0, 'bolt')}, ${hand}-hand`;
      return fits.length > 0
        ? `For the ring bolts, ${asked}: ${fits.join(', ')}.`
        : `No wrench of the library does the ring bolts: ${asked}.`;
    }
    return '';
  }

  constructor() {
    this.library.open();
    jumpTo(this.at);
  }

  protected setPart(id: string, change: Partial<PartRow>): void {
    this.edit.change((work) => (work.parts = work.parts.map((one) => (one.id === id ? { ...one, ...change } : one))));
  }

  protected addPart(name: string): void {
    this.edit.change((work) =>
      work.parts.push({
        id: this.edit.fresh(work.parts, 'own-'),
        name,
        count: 1,
        state: 'needed',
        supplier: '',
        price: null,
        promised: null,
        number: '',
      }),
    );
  }

  protected removePart(id: string): void {
    this.edit.change((work) => (work.parts = work.parts.filter((one) => one.id !== id)));
  }

  protected setTool(id: ToolId, state: (typeof TOOL_STATES)[number] | ''): void {
    if (state === '') return;
    this.edit.change((work) => {
      const old = work.tools.find((one) => one.id === id);
      const stands = toolOf(id).standIns[0] ?? '';
      const now = {
        id,
        state,
        with: state === 'stand-in' ? (old?.state === state && old.with) || stands : '',
        back: null,
        pattern: state === 'missing' ? '' : (old?.pattern ?? ''),
      };
      work.tools = [...work.tools.filter((one) => one.id !== id), now];
    });
  }

  protected tellOfTool(id: ToolId, change: Partial<Pick<ToolRow, 'with' | 'back' | 'pattern'>>): void {
    this.edit.change((work) => (work.tools = work.tools.map((one) => (one.id === id ? { ...one, ...change } : one))));
  }

  protected setTray(id: string, change: Partial<TrayRow>): void {
    this.edit.change((work) => (work.trays = work.trays.map((one) => (one.id === id ? { ...one, ...change } : one))));
  }

  protected addTray(part: string): void {
    this.edit.change((work) =>
      work.trays.push({ id: this.edit.fresh(work.trays), part, side: '', facing: '', out: 1, back: 0 }),
    );
  }

  protected removeTray(id: string): void {
    this.edit.change((work) => (work.trays = work.trays.filter((one) => one.id !== id)));
  }

  protected countBack({ id, back, out }: TrayRow, by: number): void {
    this.setTray(id, { back: Math.min(out, Math.max(0, back + by)) });
  }
}
