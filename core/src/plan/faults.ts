import type { Operation } from './operation';

/** What is wrong with an order of work, and with which two steps. */
export type PlanFault =
  | { readonly kind: 'too-early'; readonly step: string; readonly needs: string }
  | { readonly kind: 'shut'; readonly step: string; readonly by: string }
  | { readonly kind: 'before-gate'; readonly step: string; readonly gate: 'A' | 'B' }
  | { readonly kind: 'no-gate'; readonly gate: 'A' | 'B' }
  | { readonly kind: 'stays-out'; readonly part: string; readonly step: string }
  | { readonly kind: 'not-out'; readonly part: string; readonly step: string };

/**
 * Judges an order of work: every step after what it needs, what is reachable once before what closes it, nothing that
 * can't be taken back before its gate, every part that comes off on again [exact, from what the steps say of themselves].
 * @param steps in their order
 * @param skipped ids of steps that are left out on purpose: nobody waits for them, and what they would have taken off stays on
 */
export function planFaults(
  steps: readonly Operation[],
  skipped: ReadonlySet<string> = new Set(),
): readonly PlanFault[] {
  const faults: PlanFault[] = [];
  const at = new Map(steps.map(({ id }, i) => [id, i]));
  const done = new Set<string>();
  const out = new Map<string, string>();
  for (const gate of ['A', 'B'] as const)
    if (!steps.some(({ id, gate: of }) => of === gate && !skipped.has(id))) faults.push({ kind: 'no-gate', gate });
  let gates = '';
  const stayedOn = new Set<string>();
  for (const step of steps) {
    if (skipped.has(step.id)) {
      for (const { part } of step.takes) stayedOn.add(part);
      continue;
    }
    for (const needs of step.after)
      if (at.has(needs) && !done.has(needs) && !skipped.has(needs))
        faults.push({ kind: 'too-early', step: step.id, needs });
    if (step.closedBy !== null && done.has(step.closedBy))
      faults.push({ kind: 'shut', step: step.id, by: step.closedBy });
    if (step.behind !== null && !gates.includes(step.behind))
      faults.push({ kind: 'before-gate', step: step.id, gate: step.behind });
    for (const { part } of step.returns)
      if (!out.delete(part) && !stayedOn.has(part)) faults.push({ kind: 'not-out', part, step: step.id });
    for (const { part } of step.takes) out.set(part, step.id);
    if (step.gate !== null) gates += step.gate;
    done.add(step.id);
  }
  for (const [part, step] of out) faults.push({ kind: 'stays-out', part, step });
  return faults;
}
