/** Whether two documents say the same, whatever the order of their keys; a key without a value is none. */
export function sameDocument(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((one, i) => sameDocument(one, b[i]))
    );
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...keys].every((key) =>
    sameDocument((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
  );
}
