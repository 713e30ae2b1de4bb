const NUMBERS = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

/** Numbers and words of a pattern, in no order: what the sheet and a builder write differently and mean alike. */
const tokens = (pattern: string): readonly string[] =>
  (pattern.toLowerCase().match(/\d+(?:[.,]\d+)?|\p{L}+/gu) ?? [])
    .map((token) => {
      const number = NUMBERS.indexOf(token);
      return number >= 0 ? String(number + 1) : token.replace(',', '.').replace(/(?<=\p{L}{2})s$/u, '');
    })
    .sort();

/**
 * Whether a tool’s pattern, as somebody wrote it, is the one that the sheet of the axle says: the same numbers and words in any
 * order, “two pins, 5 mm” and “2 pins 5mm” alike. Null where either is not said. It does not know what two different
 * words of one thing are: a tool that was tried fits, whatever is written.
 */
export function samePattern(tool: string, sheet: string): boolean | null {
  const [ours, theirs] = [tokens(tool), tokens(sheet)];
  if (ours.length === 0 || theirs.length === 0) return null;
  return ours.join(' ') === theirs.join(' ');
}
