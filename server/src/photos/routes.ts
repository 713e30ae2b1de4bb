import { InputError } from '@hot-spline/core';
import { PHOTO_TYPES, routes, type PhotoType } from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import { keepPhoto, readPhoto } from '../keep/photos';

export function photoRoutes(db: Database): Router {
  const router = Router();

  on(router, routes.photo, async ({ params: { id }, response }) => {
    const photo = await readPhoto(db, id);
    if (!photo) throw new Problem(404, 'unknown-photo', 'No such photo', `There is no photo ${id}.`);
    response
      .type(photo.type)
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .send(Buffer.from(photo.bytes));
  });

  on(router, routes.keepPhoto, async ({ params: { id }, body, request, response }) => {
    const type = PHOTO_TYPES.find((one) => request.is(one));
    if (!type || !Buffer.isBuffer(body))
      throw new InputError('photo', 'photo is no picture.', `one of ${PHOTO_TYPES.join(', ')}`);
    await keepPhoto(db, id, { type: type satisfies PhotoType, bytes: body });
    response.status(201).json({ id });
  });

  return router;
}
