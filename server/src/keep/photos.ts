import { createHash } from 'node:crypto';
import { InputError } from '@hot-spline/core';
import { photosOf, type Build, type LedgerEntry, type PhotoFile, type PhotoType } from '@hot-spline/model';
import type { Queries } from '../db/database';

export interface Photo {
  readonly type: PhotoType;
  readonly bytes: Uint8Array;
}

/** How a file of each type begins. */
const STARTS: Readonly<Record<PhotoType, (bytes: Uint8Array) => boolean>> = {
  'image/jpeg': (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff,
  'image/png': (b) => b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47,
  'image/webp': (b) =>
    Buffer.from(b.subarray(0, 4)).toString() === 'RIFF' && Buffer.from(b.subarray(8, 12)).toString() === 'WEBP',
};

/**
 * Keeps a photo under the hash of its bytes. The same photo again is no error and changes nothing.
 * @param field names the photo in what is said of it
 * @throws InputError where the bytes are not what their id or their type says
 */
export async function keepPhoto(db: Queries, field: string, id: string, { type, bytes }: Photo): Promise<void> {
  if (createHash('sha256').update(bytes).digest('hex') !== id)
    throw new InputError(
      `${field}.id`,
      `${field}.id is not the SHA-256 of the photo’s bytes.`,
      'the hash of what is sent',
    );
  if (!STARTS[type](bytes))
    throw new InputError(`${field}.type`, `${field} is not a picture of type ${type}.`, 'a JPEG, PNG or WebP picture');
  await db.query('insert into photos (id, type, bytes) values ($1, $2, $3) on conflict (id) do nothing', [
    id,
    type,
    bytes,
  ]);
}

export async function readPhoto(db: Queries, id: string): Promise<Photo | null> {
  const [row] = await db.query<{ type: PhotoType; bytes: Uint8Array }>('select type, bytes from photos where id = $1', [
    id,
  ]);
  return row ?? null;
}

/** The photos that a build names and that are here, for a file. */
export async function photoFiles(db: Queries, build: Build, ledger: readonly LedgerEntry[]): Promise<PhotoFile[]> {
  const files: PhotoFile[] = [];
  for (const id of photosOf(build, ledger)) {
    const photo = await readPhoto(db, id);
    if (photo) files.push({ id, type: photo.type, data: Buffer.from(photo.bytes).toString('base64') });
  }
  return files;
}

/** @throws InputError naming the photo */
export async function keepPhotoFiles(db: Queries, photos: readonly PhotoFile[]): Promise<void> {
  for (const [i, { id, type, data }] of photos.entries())
    await keepPhoto(db, `photos[${i}]`, id, { type, bytes: Buffer.from(data, 'base64') });
}
