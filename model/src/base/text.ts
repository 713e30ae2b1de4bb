/** Encodings that a file of numbers comes in. */
export type TextEncoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/**
 * What a file is written in, by its first bytes: a mark of the byte order, zeros beside every letter, or bytes that are no UTF-8,
 * which is what spreadsheets of western systems write.
 */
export function encodingOf(bytes: Uint8Array): TextEncoding {
  const [a = 0, b = 0] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const looked = bytes.subarray(0, 512);
  const zeros = (from: 0 | 1): number => looked.filter((byte, i) => i % 2 === from && byte === 0).length;
  if (looked.length > 3 && zeros(1) > looked.length / 4) return 'utf-16le';
  if (looked.length > 3 && zeros(0) > looked.length / 4) return 'utf-16be';
  try {
    // What is cut in the middle of a letter is no fault.
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true });
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** A file as text, whatever it is written in. */
export const textOf = (bytes: Uint8Array): string => new TextDecoder(encodingOf(bytes)).decode(bytes);
