import { deflateSync, crc32 } from 'node:zlib';
import { PIXEL, exif, jpeg, segment } from '../testing/pictures';
import { NoPicture, cleanPicture } from './picture';

/** A chunk of a PNG: ISO/IEC 15948, 5.3. */
function chunk(type: string, body: Buffer): Buffer {
  const named = Buffer.concat([Buffer.from(type), body]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(body.length);
  sum.writeUInt32BE(crc32(named));
  return Buffer.concat([length, named, sum]);
}
const START = PIXEL.subarray(0, 8);
const END = chunk('IEND', Buffer.alloc(0));
/** 8 bits of grey: by hand 1 + width bytes a line. */
const head = (width: number, height: number, interlaced = 0): Buffer => {
  const body = Buffer.alloc(13);
  body.writeUInt32BE(width);
  body.writeUInt32BE(height, 4);
  body.set([8, 0, 0, 0, interlaced], 8);
  return chunk('IHDR', body);
};
const png = (width: number, height: number, lines: number, interlaced = 0, more: readonly Buffer[] = []): Buffer =>
  Buffer.concat([
    START,
    head(width, height, interlaced),
    ...more,
    chunk('IDAT', deflateSync(Buffer.alloc(lines))),
    END,
  ]);

/** A chunk of a WebP: RFC 9649, 2.3. */
const riff = (type: string, body: Buffer): Buffer => {
  const length = Buffer.alloc(4);
  length.writeUInt32LE(body.length);
  return Buffer.concat([Buffer.from(type), length, body, Buffer.alloc(body.length % 2)]);
};
const webp = (...chunks: readonly Buffer[]): Buffer => riff('RIFF', Buffer.concat([Buffer.from('WEBP'), ...chunks]));
/** A frame of 3 × 2: only its head matters here. */
const frame = riff('VP8 ', Buffer.from([0x30, 1, 0, 0x9d, 1, 0x2a, 3, 0, 2, 0, 7]));
const extended = (flags: number): Buffer => riff('VP8X', Buffer.from([flags, 0, 0, 0, 2, 0, 0, 1, 0, 0]));

const clean = async (type: 'jpeg' | 'png' | 'webp', bytes: Buffer): Promise<Buffer> =>
  cleanPicture(`image/${type}`, bytes);
const why = async (type: 'jpeg' | 'png' | 'webp', bytes: Buffer): Promise<string> => {
  try {
    await clean(type, bytes);
    return '';
  } catch (error) {
    if (!(error instanceof NoPicture)) throw error;
    return error.message;
  }
};

describe('a picture', () => {
  it('loses place, time, texts and what lies behind its end, and not one point', async () => {
    const told = [
      segment(0xe1, `Exif\0\0${exif(1).toString('latin1')}`),
      segment(0xe1, 'http://ns.adobe.com/xap/1.0/\0<x:xmpmeta>48 12 N</x:xmpmeta>'),
      segment(0xe0, 'JFXX\0\x10thumbnail'),
      segment(0xed, 'Photoshop 3.0\0caption'),
      segment(0xfe, 'by the river'),
    ];
    const kept = [segment(0xe2, 'ICC_PROFILE\0\x01\x01colours'), segment(0xee, 'Adobe\0d\0\0\0\0\0')];
    expect(await clean('jpeg', jpeg(1, [...told, ...kept], Buffer.from('another picture')))).toEqual(jpeg(1, kept));
    expect(await clean('jpeg', jpeg(1))).toEqual(jpeg(1));

    const texts = ['tEXt', 'iTXt', 'zTXt', 'tIME'].map((type) => chunk(type, Buffer.from('by the river')));
    const colours = chunk('gAMA', Buffer.from([0, 0, 0xb1, 0x8f]));
    expect(await clean('png', png(3, 2, 8, 0, [...texts, colours, chunk('eXIf', exif(1))]))).toEqual(
      png(3, 2, 8, 0, [colours]),
    );
    expect(await clean('png', Buffer.concat([PIXEL, Buffer.from('more')]))).toEqual(PIXEL);

    // Flags: 0x08 Exif, 0x04 XMP, 0x20 colours.
    const colour = riff('ICCP', Buffer.from('colours'));
    expect(
      await clean('webp', webp(extended(0x2c), colour, frame, riff('EXIF', exif(1)), riff('XMP ', Buffer.from('x')))),
    ).toEqual(webp(extended(0x20), colour, frame));
    expect(await clean('webp', webp(frame))).toEqual(webp(frame));
  });

  it('stays the way up that it was held, and says nothing else of it', async () => {
    const turned = await clean('jpeg', jpeg(1, [segment(0xe1, `Exif\0\0${exif(6).toString('latin1')}`)]));
    expect(turned.toString('latin1')).not.toContain('N 48');
    // TIFF 6.0 by hand: MM, 42, directory at 8, one tag: 0112 short 1 = 6.
    const said = Buffer.from('4d4d002a00000008000101120003000000010006000000000000', 'hex');
    expect(turned.subarray(2, 12)).toEqual(Buffer.from('ffe10022457869660000', 'hex'));
    expect(turned.subarray(12, 38)).toEqual(said);
    expect(turned.subarray(38)).toEqual(jpeg(1).subarray(2));
    expect(await clean('png', png(3, 2, 8, 0, [chunk('eXIf', exif(8))]))).toEqual(
      png(3, 2, 8, 0, [chunk('eXIf', Buffer.from(said.toString('hex').replace('00010006', '00010008'), 'hex'))]),
    );
    const held = await clean('webp', webp(extended(0x08), frame, riff('EXIF', exif(3))));
    expect(held).toEqual(
      webp(
        extended(0x08),
        frame,
        riff('EXIF', Buffer.from(said.toString('hex').replace('00010006', '00010003'), 'hex')),
      ),
    );
    // Done twice it is the same.
    expect(await clean('jpeg', turned)).toEqual(turned);
    expect(await clean('webp', held)).toEqual(held);
  });

  it('that is none, torn or larger than it may be is refused with why', async () => {
    const cases: ['jpeg' | 'png' | 'webp', Buffer, RegExp][] = [
      ['jpeg', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]), /ends too early/],
      ['jpeg', Buffer.from('not a picture'), /does not begin/],
      ['jpeg', Buffer.alloc(0), /ends too early/],
      ['jpeg', jpeg().subarray(0, -1), /ends too early/],
      ['jpeg', Buffer.concat([jpeg().subarray(0, 20), Buffer.from('<script>')]), /torn/],
      ['jpeg', Buffer.from([0xff, 0xd8, 0xff, 0xd9]), /no image/],
      ['jpeg', Buffer.concat([Buffer.from([0xff, 0xd8]), segment(0xda, 'x'), Buffer.from([0xff, 0xd9])]), /no frame/],
      [
        'jpeg',
        Buffer.concat([Buffer.from([0xff, 0xd8]), segment(0xc0, Buffer.from([8, 255, 255, 255, 255, 1]))]),
        /larger/,
      ],
      ['jpeg', Buffer.concat([Buffer.from([0xff, 0xd8]), segment(0xc0, Buffer.from([8, 0, 0, 0, 9, 1]))]), /no size/],
      ['png', PIXEL.subarray(0, 40), /ends too early/],
      ['png', png(3, 2, 9), /more in it/],
      ['png', png(3, 2, 7), /less in it/],
      ['png', png(60_000, 60_000, 1), /larger/],
      ['png', Buffer.concat([START, END]), /head/],
      ['webp', Buffer.from('RIFF\x04\0\0\0WEBP', 'latin1'), /no image/],
      ['webp', Buffer.from('RIFF\xff\0\0\0WEBP', 'latin1'), /ends too early/],
      ['webp', webp(riff('VP8 ', Buffer.alloc(12))), /frame/],
    ];
    for (const [type, bytes, says] of cases)
      expect(await why(type, bytes))
        .withContext(`${type} ${bytes.length}`)
        .toMatch(says);
    const touched = Buffer.from(png(3, 2, 8));
    touched[45] = (touched[45] ?? 0) ^ 1;
    expect(await why('png', touched)).toMatch(/torn/);
    // Adam7 by hand for 3 × 2: passes of 1×1, 0, 0, 1×1, 0 (no row 2), 1×2 (columns 1), 1×3 (row 1): 2 + 2 + 2 + 4.
    expect(await why('png', png(3, 2, 10, 1))).toBe('');
    expect(await why('png', png(3, 2, 8, 1))).toMatch(/less/);
  });
});
