import { say, type UnitSystem } from '@hot-spline/core';
import {
  STATIONS,
  VERDICTS,
  type Build,
  type Derived,
  type FigureId,
  type Finding,
  type StationKind,
  type Verdict,
} from '@hot-spline/model';
import type { StationContext, StationDescriptor, StationText } from '../shared/descriptor';

/** One place on the Line: the figures that matter there, and its worst finding. */
export interface Station extends StationText {
  readonly kind: StationKind;
  readonly sheet: string;
  readonly verdict: Verdict | null;
}

function worst(findings: readonly Finding[], kind: StationKind, axle: string): Verdict | null {
  const own = findings.filter(({ station, place }) => station === kind && (!place.axle || place.axle === axle));
  return VERDICTS.find((verdict) => own.some((finding) => finding.verdict === verdict)) ?? null;
}

/** The driveline from engine to ground at the operating point, with the figures of one axle. */
export function stations(
  build: Build,
  derived: Derived,
  system: UnitSystem,
  list: readonly StationDescriptor[],
): Station[] {
  const { main: axle, figures, findings } = derived;
  const context: StationContext = {
    build,
    derived,
    system,
    number: (id: FigureId) => figures.get(id)?.value ?? 0,
    figure(id: FigureId, decimals?: number) {
      const figure = figures.get(id);
      if (!figure) return '–';
      return figure.value === null
        ? (figure.instead ?? '–')
        : say(figure.value, figure.quantity, system, decimals ?? figure.decimals);
    },
  };
  return STATIONS.flatMap((kind) => {
    const station = list.find((one) => one.kind === kind);
    const text = station?.show(context);
    return station && text ? [{ kind, sheet: station.sheet, ...text, verdict: worst(findings, kind, axle) }] : [];
  });
}
