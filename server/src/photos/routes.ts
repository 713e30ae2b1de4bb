import { InputError } from '@hot-spline/core';
import { PHOTO_BYTES, PHOTO_TYPES, type PhotoType } from '@hot-spline/model';
import express, { Router } from 'express';
import type { Database } from '../db/database';
import { Problem } from '../problem';
import { keepPhoto, readPhoto } from './store';

const HASH = /^[0-9a-f]{64}$/;

/** An id out of a path. @throws InputError on `id` */
function photoOf({ id = '' }: { id?: string }): string {
  if (!HASH.test(id)) throw new InputError('id', 'id is not the SHA-256 of a photo.', '64 hexadecimal digits');
  return id;
}

export function photoRoutes(db: Database): Router {
  const router = Router();

  router.get('/photos/:id', async (request, response) => {
    const id = photoOf(request.params);
    const photo = await readPhoto(db, id);
    if (!photo) throw new Problem(404, 'unknown-photo', 'No such photo', `There is no photo ${id}.`);
    response
      .type(photo.type)
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .send(Buffer.from(photo.bytes));
  });

  router.put('/photos/:id', express.raw({ type: [...PHOTO_TYPES], limit: PHOTO_BYTES }), async (request, response) => {
    const id = photoOf(request.params);
    const type = PHOTO_TYPES.find((one) => request.is(one));
    if (!type || !Buffer.isBuffer(request.body))
      throw new InputError('photo', 'photo is no picture.', `one of ${PHOTO_TYPES.join(', ')}`);
    await keepPhoto(db, 'photo', id, { type: type satisfies PhotoType, bytes: request.body });
    response.status(201).json({ id });
  });

  return router;
}
