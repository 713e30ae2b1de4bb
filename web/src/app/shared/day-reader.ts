import { InputError } from '@hot-spline/core';
import { sayDay } from '../base/day';
import type { Understood } from './field';

/** Reads a day as YYYY-MM-DD or as the device writes it: day, month, year. */
export function readDay(text: string): Understood<string | null> {
  const said = text.trim();
  if (said === '') return { value: null, said: 'none' };
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(said);
  const plain = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(said);
  const parts = iso ? [iso[1], iso[2], iso[3]] : plain ? [plain[3], plain[2], plain[1]] : null;
  const day = parts?.map((part) => (part ?? '').padStart(2, '0')).join('-') ?? '';
  const date = new Date(`${day}T00:00:00Z`);
  if (parts === null || Number.isNaN(date.getTime()) || date.toISOString().slice(0, 10) !== day)
    throw new InputError('Day', `“${said}” is no day.`, 'such as 2026-12-24 or 24.12.2026');
  return { value: day, said: sayDay(day) };
}
