/**
 * The beginning of a text, at most so many UTF-16 units long, cut between characters as people see them: a flag or an
 * accented letter is never cut in two.
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { index, segment } of new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(text)) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}
