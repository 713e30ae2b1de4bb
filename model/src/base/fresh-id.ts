/** A short id that is unique inside one build. */
export function freshId(taken: Iterable<string>, prefix: string): string {
  const used = new Set(taken);
  let n = used.size + 1;
  while (used.has(`${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}
