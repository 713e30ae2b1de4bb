import { createHash } from 'node:crypto';

/** A pixel, as a PNG: the smallest picture there is. */
export const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A segment of a JPEG: its marker, its length, what is in it. */
export function segment(marker: number, body: Buffer | string): Buffer {
  const bytes = typeof body === 'string' ? Buffer.from(body, 'latin1') : body;
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(bytes.length + 2, 2);
  return Buffer.concat([head, bytes]);
}

/** Exif of a camera: its place, and which way up it was held. Written anew from TIFF 6.0: little end first, two tags. */
export function exif(way: number): Buffer {
  const tag = (id: number, type: number, n: number, value: Buffer): Buffer => {
    const head = Buffer.alloc(8);
    head.writeUInt16LE(id);
    head.writeUInt16LE(type, 2);
    head.writeUInt32LE(n, 4);
    return Buffer.concat([head, value, Buffer.alloc(4 - value.length)]);
  };
  return Buffer.concat([
    Buffer.from('II*\0\x08\0\0\0\x02\0', 'latin1'),
    tag(274, 3, 1, Buffer.from([way, 0])),
    tag(34_853, 4, 1, Buffer.from([38, 0, 0, 0])),
    Buffer.from('\0\0\0\0N 48 12 W 11 34', 'latin1'),
  ]);
}

/** As little of a JPEG as is one: a table, a frame of one point, a scan; `salt` makes it another photo. */
export function jpeg(salt = 1, before: readonly Buffer[] = [], behind: Buffer = Buffer.alloc(0)): Buffer {
  return Buffer.concat([
    Buffer.from([0xff, 0xd8]),
    segment(0xe0, Buffer.from('JFIF\0\x01\x01\0\0\x01\0\x01\0\0', 'latin1')),
    ...before,
    segment(0xdb, Buffer.concat([Buffer.from([0]), Buffer.alloc(64, salt)])),
    segment(0xc0, Buffer.from([8, 0, 1, 0, 1, 1, 1, 0x11, 0])),
    segment(0xda, Buffer.from([1, 1, 0, 0, 63, 0])),
    // Data of a scan: a stuffed FF, a restart.
    Buffer.from([0x12, 0xff, 0x00, 0x34, 0xff, 0xd0, 0x56]),
    Buffer.from([0xff, 0xd9]),
    behind,
  ]);
}
