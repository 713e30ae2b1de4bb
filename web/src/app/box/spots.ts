import { InputError } from '@hot-spline/core';
import type { PlaceSpec } from '@hot-spline/model';
import type { Understood } from '../shared/field';

type Spots = PlaceSpec['spots'];

export const spotsText = (spots: Spots): string => spots.map(([x, y]) => `${x} ${y}`).join(', ');

/** Reads `50 8, 92 50`: where each of them lies on its face, across and down in hundredths; empty text places none. */
export function spotsReader(label: string, most: number): (text: string) => Understood<Spots> {
  return (text) => {
    const parts = text
      .split(/[,;]\s*/)
      .map((part) => part.trim())
      .filter((part) => part !== '');
    if (parts.length > most)
      throw new InputError(label, `${label}: ${parts.length} are more than there are of it.`, `${most} at most`);
    const value = parts.map((part): [number, number] => {
      const match = /^(\d{1,3})\s+(\d{1,3})$/.exec(part);
      const [x, y] = [Number(match?.[1]), Number(match?.[2])];
      if (!match || x > 100 || y > 100)
        throw new InputError(label, `${label}: “${part}” is no place on it.`, 'across and down, 0 to 100, e.g. 50 8');
      return [x, y];
    });
    return { value, said: value.length === 0 ? 'not placed' : `${value.length} of ${most} placed` };
  };
}
