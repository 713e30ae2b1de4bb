import { SHOP_HEADER } from '@hot-spline/model';
import type { RequestHandler } from 'express';
import { Problem } from '../base/problem';
import type { Queries } from '../db/database';
import { readShopId } from '../keep/shop';

/** A write says which shop it is for: an idle page that was opened on another one behind the same address writes nothing here. */
export function refuseOtherShop(db: Queries): RequestHandler {
  return async (request, _response, next) => {
    const named = request.headers[SHOP_HEADER];
    if (named === undefined || request.method === 'GET' || request.method === 'HEAD') return next();
    const id = await readShopId(db);
    if (named === id) return next();
    throw new Problem(
      412,
      'other-shop',
      'Another shop',
      'Not kept: this is another shop than the one that it is for.',
      {
        shop: id,
      },
    );
  };
}
