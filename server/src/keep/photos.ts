import { createHash } from 'node:crypto';
import { InputError } from '@hot-spline/core';
import type { PhotoFile, PhotoType } from '@hot-spline/model';
import type { Queries } from '../db/database';
import type { KeptBuild, KeptPhoto } from '../threads/tasks';
import { NoPicture, cleanPicture } from './picture';

export interface Photo {
  readonly type: PhotoType;
  readonly bytes: Uint8Array;
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A photo without what stands in it beside the picture. @throws InputError where it is no picture of its type */
async function cleaned(
  field: string,
  { type, bytes }: Photo,
): Promise<{ readonly bytes: Buffer; readonly kept: string }> {
  try {
    const clean = await cleanPicture(type, bytes);
    return { bytes: clean, kept: sha256(clean) };
  } catch (error) {
    if (!(error instanceof NoPicture)) throw error;
    throw new InputError(
      `${field}.type`,
      `${field} is not a picture of type ${type}: ${error.message}.`,
      'a JPEG, PNG or WebP picture, whole',
    );
  }
}

/**
 * Keeps a photo under the hash of the bytes that are sent, without what stands in it beside the picture. The same photo again is no error
 * and changes nothing.
 * @throws InputError where the bytes are not what their id or their type says
 */
export async function keepPhoto(db: Queries, id: string, photo: Photo): Promise<void> {
  if (sha256(photo.bytes) !== id)
    throw new InputError('photo.id', 'photo.id is not the SHA-256 of the photo’s bytes.', 'the hash of what is sent');
  const { bytes, kept } = await cleaned('photo', photo);
  // What came in with a file stood for itself alone: this is proven to be what the id says.
  await db.query(
    `insert into photos (id, type, bytes, kept) values ($1, $2, $3, $4)
     on conflict (id) do update set type = excluded.type, bytes = excluded.bytes, kept = excluded.kept, arriving = null
     where photos.kept is distinct from excluded.kept or photos.arriving is not null`,
    [id, photo.type, bytes, kept],
  );
}

const insertPhoto = (db: Queries, id: string, { type, bytes }: Photo, kept: string, arriving: string | null = null) =>
  db.query(
    'insert into photos (id, type, bytes, kept, arriving) values ($1, $2, $3, $4, $5) on conflict (id) do nothing',
    [id, type, bytes, kept, arriving],
  );

/**
 * Keeps a photo of an archive. One that is no whole picture stays as it is: it was kept before pictures were looked at.
 * @param arriving the import that it comes with, while that may still be stopped
 */
export async function takePhoto(db: Queries, id: string, photo: Photo, arriving: string | null = null): Promise<void> {
  try {
    const { bytes, kept } = await cleaned('photo', photo);
    await insertPhoto(db, id, { type: photo.type, bytes }, kept, arriving);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    await insertPhoto(db, id, photo, sha256(photo.bytes), arriving);
  }
}

/**
 * Cleans what was kept before pictures were cleaned, one after the other.
 * @returns ids of those that are no whole picture: they stay as they are
 */
export async function cleanPhotos(db: Queries, signal: AbortSignal): Promise<readonly string[]> {
  const ids = await db.query<{ id: string }>('select id from photos where kept is null order by id');
  const torn: string[] = [];
  for (const { id } of ids) {
    if (signal.aborted) break;
    const photo = await readPhoto(db, id);
    if (!photo) continue;
    try {
      const { bytes, kept } = await cleaned('photo', photo);
      await db.query('update photos set bytes = $2, kept = $3 where id = $1', [id, bytes, kept]);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      torn.push(id);
      await db.query('update photos set kept = $2 where id = $1', [id, sha256(photo.bytes)]);
    }
  }
  return torn;
}

export async function readPhoto(db: Queries, id: string): Promise<Photo | null> {
  const [row] = await db.query<{ type: PhotoType; bytes: Uint8Array }>('select type, bytes from photos where id = $1', [
    id,
  ]);
  return row ?? null;
}

/** The photos that a build names and that are here, by what stands in it: an id is 64 hexadecimal digits and nothing else is. */
export async function keptPhotos(db: Queries, { document, entries }: KeptBuild): Promise<KeptPhoto[]> {
  const ids = new Set([document.text, entries].flatMap((text) => text.match(/(?<=")[0-9a-f]{64}(?=")/g) ?? []));
  const photos: KeptPhoto[] = [];
  for (const id of [...ids].sort()) {
    const photo = await readPhoto(db, id);
    if (!photo) continue;
    const kept = sha256(photo.bytes);
    photos.push({ id, type: photo.type, bytes: photo.bytes, ...(kept === id ? {} : { kept }) });
  }
  return photos;
}

/**
 * Keeps the photos of a build file.
 * @throws InputError naming the photo whose bytes are not what their hash or their type says
 */
export async function keepPhotoFiles(db: Queries, photos: Iterable<PhotoFile>): Promise<void> {
  let i = 0;
  for (const { id, type, data, kept } of photos) {
    const field = `photos[${i++}]`;
    const bytes = Buffer.from(data, 'base64');
    if (sha256(bytes) !== (kept ?? id)) {
      const name = `${field}.${kept === undefined ? 'id' : 'kept'}`;
      throw new InputError(name, `${name} is not the SHA-256 of the photo’s bytes.`, 'the hash of what is sent');
    }
    const clean = await cleaned(field, { type, bytes });
    await insertPhoto(db, id, { type, bytes: clean.bytes }, clean.kept);
  }
}
