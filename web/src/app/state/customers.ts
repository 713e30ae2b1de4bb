import type { Customer } from '@hot-spline/model';
import { ApiError, api } from './api';
import type { Outbox } from './outbox';

/**
 * The shop's customers, with what waits on this device in place of what the server has.
 * @throws ApiError where the server is away and nothing waits here
 */
export async function readCustomers(outbox: Outbox): Promise<Customer[]> {
  await outbox.sent();
  const waiting = await outbox.pendingCustomers();
  const kept = await api.customers().catch((error: unknown) => {
    if (!(error instanceof ApiError) || waiting.size === 0) throw error;
    return [];
  });
  const here = new Map(kept.map((customer) => [customer.id, customer]));
  for (const [id, customer] of waiting) {
    if (customer) here.set(id, { ...customer, id, builds: here.get(id)?.builds ?? 0 });
    else here.delete(id);
  }
  return [...here.values()];
}
