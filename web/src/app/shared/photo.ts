import { InputError } from '@hot-spline/core';
import { PHOTO_BYTES } from '@hot-spline/model';
import { sha256 as hashOf } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** Longest side of a photo that is kept, pixels: a scored plate is still seen in it. */
const LONGEST = 1600;
const QUALITY = 0.82;

/** By a package: the browser's own exists only on https and localhost. */
async function sha256(blob: Blob): Promise<string> {
  return bytesToHex(hashOf(new Uint8Array(await blob.arrayBuffer())));
}

/**
 * Makes any picture that the browser can read into a JPEG small enough to keep, under the hash of its bytes.
 * @throws InputError on `photo` for a file that is no picture
 */
export async function readPhoto(file: File): Promise<{ id: string; blob: Blob }> {
  const no = (why: string): InputError => new InputError('photo', `photo “${file.name}” ${why}.`, 'a picture');
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture) throw no('is no picture that can be read');
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
  if (!blob || blob.size > PHOTO_BYTES) throw no('is too large');
  return { id: await sha256(blob), blob };
}
