import { Readable } from 'node:stream';
import { crc32, createInflate } from 'node:zlib';
import type { PhotoType } from '@hot-spline/model';

/** What is sent as a picture is none, and why. */
export class NoPicture extends Error {}

/** What a picture may unpack to at most, bytes: a small file must not fill the memory of whoever looks at it. Ours. */
const LARGEST = 256e6;

const ascii = (bytes: Buffer, from: number, to: number): string => bytes.toString('latin1', from, to);

/** A piece of the file that has to be there. */
function part(bytes: Buffer, at: number, length: number): Buffer {
  if (length < 0 || at + length > bytes.length) throw new NoPicture('it ends too early');
  return bytes.subarray(at, at + length);
}

function requireSize(width: number, height: number): void {
  if (width === 0 || height === 0) throw new NoPicture('it has no size');
  if (width * height * 4 > LARGEST) throw new NoPicture(`it is ${width} × ${height}, larger than can be shown`);
}

// Exif: which way up is the one thing in it that a picture needs (TIFF 6.0, tag 274). The rest – place, time, camera – is not ours.
const UPRIGHT = 1;

function uprightOf(tiff: Buffer): number {
  if (tiff.length < 14) return UPRIGHT;
  const order = ascii(tiff, 0, 2);
  if (order !== 'II' && order !== 'MM') return UPRIGHT;
  const short = (at: number): number => (order === 'II' ? tiff.readUInt16LE(at) : tiff.readUInt16BE(at));
  const ifd = order === 'II' ? tiff.readUInt32LE(4) : tiff.readUInt32BE(4);
  if (ifd + 2 > tiff.length) return UPRIGHT;
  for (let i = 0, at = ifd + 2; i < short(ifd) && at + 12 <= tiff.length; i++, at += 12)
    if (short(at) === 274) {
      const way = short(at + 8);
      return way >= 1 && way <= 8 ? way : UPRIGHT;
    }
  return UPRIGHT;
}

/** Exif that says which way up, and nothing else. */
const tiffSaying = (way: number): Buffer =>
  Buffer.from([0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 1, 18, 0, 3, 0, 0, 0, 1, 0, way, 0, 0, 0, 0, 0, 0]);

const EXIF = 'Exif\0\0';

/** ITU-T T.81: segments up to the end of the image; what lies behind it is not kept. */
function cleanJpeg(bytes: Buffer): Buffer {
  if (part(bytes, 0, 2).readUInt16BE() !== 0xffd8) throw new NoPicture('it does not begin as one');
  const kept: Buffer[] = [];
  let way = UPRIGHT;
  let framed = false;
  let scanned = false;
  let at = 2;
  for (;;) {
    const before = at;
    if (part(bytes, at, 2)[0] !== 0xff) throw new NoPicture('it is torn');
    // A marker may have fill bytes before it.
    while (part(bytes, at + 1, 1)[0] === 0xff) at++;
    const marker = bytes[at + 1] ?? 0;
    at += 2;
    if (marker === 0xd9) break;
    if (marker === 0x01 || (marker >= 0xd0 && marker <= 0xd7)) {
      kept.push(bytes.subarray(before, at));
      continue;
    }
    const length = part(bytes, at, 2).readUInt16BE();
    if (length < 2) throw new NoPicture('it is torn');
    const body = part(bytes, at, length).subarray(2);
    at += length;
    const name = ascii(body, 0, 12);
    if (marker === 0xe1 && name.startsWith(EXIF)) way = uprightOf(body.subarray(EXIF.length));
    const frame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
    if (frame) {
      const [height, width] = [part(body, 1, 4).readUInt16BE(), body.readUInt16BE(3)];
      requireSize(width, height);
      framed = true;
    }
    const named = marker >= 0xe0 && marker <= 0xef;
    const needed =
      (marker === 0xe0 && name.startsWith('JFIF\0')) ||
      (marker === 0xe2 && name.startsWith('ICC_PROFILE\0')) ||
      (marker === 0xee && name.startsWith('Adobe'));
    if ((named && !needed) || marker === 0xfe) continue;
    if (marker === 0xda) {
      if (!framed) throw new NoPicture('it has no frame');
      scanned = true;
      // Behind the head of a scan stands its data, to the next marker that is one.
      for (;;) {
        at = bytes.indexOf(0xff, at);
        if (at < 0 || at + 1 >= bytes.length) throw new NoPicture('it ends too early');
        const next = bytes[at + 1] ?? 0;
        if (next !== 0 && (next < 0xd0 || next > 0xd7) && next !== 0xff) break;
        at += next === 0xff ? 1 : 2;
      }
    }
    kept.push(bytes.subarray(before, at));
  }
  if (!scanned) throw new NoPicture('there is no image in it');
  const upright: Buffer[] = [];
  if (way !== UPRIGHT) {
    const said = Buffer.concat([Buffer.from(EXIF, 'latin1'), tiffSaying(way)]);
    upright.push(Buffer.from([0xff, 0xe1, 0, said.length + 2]), said);
  }
  return Buffer.concat([Buffer.from([0xff, 0xd8]), ...upright, ...kept, Buffer.from([0xff, 0xd9])]);
}

function chunk(type: string, body: Buffer): Buffer {
  const named = Buffer.concat([Buffer.from(type, 'latin1'), body]);
  const whole = Buffer.alloc(body.length + 12);
  whole.writeUInt32BE(body.length);
  named.copy(whole, 4);
  whole.writeUInt32BE(crc32(named), body.length + 8);
  return whole;
}

const PNG_START = '89504e470d0a1a0a';
/** What a picture needs to be shown. Texts, times and Exif are not in it. */
const PNG_NEEDS = 'IHDR PLTE IDAT tRNS gAMA cHRM sRGB iCCP cICP sBIT bKGD pHYs'.split(' ');
const CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Where each pass of Adam7 begins, and its steps. */
const ADAM7 = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
] as const;

/** Bytes that the lines of a PNG unpack to. */
function linesOf(head: Buffer): number {
  const [width, height] = [part(head, 0, 13).readUInt32BE(0), head.readUInt32BE(4)];
  requireSize(width, height);
  const bits = (head[8] ?? 0) * (CHANNELS[head[9] ?? 99] ?? 0);
  if (bits === 0) throw new NoPicture('its colours are of no kind');
  const pass = (columns: number, rows: number): number =>
    columns > 0 && rows > 0 ? rows * (1 + Math.ceil((columns * bits) / 8)) : 0;
  return head[12] === 0
    ? pass(width, height)
    : ADAM7.reduce((sum, [x, y, dx, dy]) => sum + pass(Math.ceil((width - x) / dx), Math.ceil((height - y) / dy)), 0);
}

async function cleanPng(bytes: Buffer): Promise<Buffer> {
  if (bytes.toString('hex', 0, 8) !== PNG_START) throw new NoPicture('it does not begin as one');
  const kept: Buffer[] = [bytes.subarray(0, 8)];
  const data: Buffer[] = [];
  let lines: number | null = null;
  let way = UPRIGHT;
  for (let at = 8; ;) {
    const length = part(bytes, at, 8).readUInt32BE();
    const type = ascii(bytes, at + 4, at + 8);
    const whole = part(bytes, at, length + 12);
    const body = whole.subarray(8, 8 + length);
    if (crc32(whole.subarray(4, 8 + length)) !== whole.readUInt32BE(8 + length)) throw new NoPicture('it is torn');
    if ((lines === null) !== (type === 'IHDR')) throw new NoPicture('its head is not where it belongs');
    if (type === 'IHDR') lines = linesOf(body);
    if (type === 'IDAT') data.push(body);
    if (type === 'eXIf') way = uprightOf(body);
    if (PNG_NEEDS.includes(type)) kept.push(whole);
    at += length + 12;
    if (type === 'IEND') break;
  }
  let unpacked = 0;
  try {
    for await (const some of Readable.from(data).pipe(createInflate()) as AsyncIterable<Buffer>) {
      unpacked += some.length;
      if (unpacked > (lines ?? 0)) throw new NoPicture('there is more in it than its size says');
    }
  } catch (error) {
    if (error instanceof NoPicture) throw error;
    throw new NoPicture('it is torn');
  }
  if (unpacked !== lines) throw new NoPicture('there is less in it than its size says');
  if (way !== UPRIGHT) kept.splice(2, 0, chunk('eXIf', tiffSaying(way)));
  return Buffer.concat([...kept, chunk('IEND', Buffer.alloc(0))]);
}

/** RFC 9649. */
function cleanWebp(bytes: Buffer): Buffer {
  if (ascii(bytes, 0, 4) !== 'RIFF' || ascii(bytes, 8, 12) !== 'WEBP') throw new NoPicture('it does not begin as one');
  const all = part(bytes, 8, bytes.readUInt32LE(4));
  const kept: Buffer[] = [Buffer.from('WEBP')];
  let extended: Buffer | null = null;
  let way = UPRIGHT;
  let image = false;
  for (let at = 4; at < all.length;) {
    const length = part(all, at, 8).readUInt32LE(4);
    const type = ascii(all, at, at + 4);
    const body = part(all, at + 8, length);
    const padded = length + (length % 2);
    if (type === 'VP8 ') {
      if (part(body, 0, 10).readUIntBE(3, 3) !== 0x9d012a) throw new NoPicture('its frame is none');
      requireSize(body.readUInt16LE(6) & 0x3fff, body.readUInt16LE(8) & 0x3fff);
    }
    if (type === 'VP8L') {
      if (part(body, 0, 5)[0] !== 0x2f) throw new NoPicture('its frame is none');
      const size = body.readUInt32LE(1);
      requireSize((size & 0x3fff) + 1, ((size >>> 14) & 0x3fff) + 1);
    }
    image ||= type === 'VP8 ' || type === 'VP8L' || type === 'ANMF';
    if (type === 'EXIF') way = uprightOf(ascii(body, 0, 6) === EXIF ? body.subarray(6) : body);
    if (['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ICCP', 'ANIM', 'ANMF'].includes(type)) {
      const whole = Buffer.alloc(8 + padded);
      all.copy(whole, 0, at, at + 8 + length);
      kept.push(whole);
      if (type === 'VP8X') extended = whole;
    }
    at += 8 + padded;
  }
  if (!image) throw new NoPicture('there is no image in it');
  if (extended) {
    requireSize(part(extended, 8, 10).readUIntLE(4, 3) + 1, extended.readUIntLE(15, 3) + 1);
    // Exif and XMP are said in its flags.
    extended[8] = ((extended[8] ?? 0) & ~0x0c) | (way === UPRIGHT ? 0 : 0x08);
    if (way !== UPRIGHT) {
      const said = tiffSaying(way);
      const head = Buffer.from('EXIF\0\0\0\0', 'latin1');
      head.writeUInt32LE(said.length, 4);
      kept.push(head, said);
    }
  }
  const body = Buffer.concat(kept);
  const head = Buffer.from('RIFF\0\0\0\0', 'latin1');
  head.writeUInt32LE(body.length, 4);
  return Buffer.concat([head, body]);
}

/**
 * A picture without what is in it beside the picture: place, time, camera, texts, previews, what lies behind its end. Colours and which
 * way up it is stay; not one point of it is changed. It is looked through as far as shows that it is one: all segments of a JPEG, sums
 * and lines of a PNG, frames of a WebP – what its compressed points say is not looked at.
 * @throws NoPicture saying what is wrong with it
 */
export function cleanPicture(type: PhotoType, bytes: Uint8Array): Buffer | Promise<Buffer> {
  const all = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  switch (type) {
    case 'image/jpeg':
      return cleanJpeg(all);
    case 'image/png':
      return cleanPng(all);
    case 'image/webp':
      return cleanWebp(all);
  }
}
