import { newId } from '../base/new-id';
import { until } from '../../testing/harness';
import { Lease } from './lease';

describe('a lease in IndexedDB, where there are no locks', () => {
  it('lets one tab at a time, and the next one in when it is given back', async () => {
    const name = `lease-${newId()}`;
    const [one, other] = [new Lease(name), new Lease(name)];
    const order: string[] = [];
    let finish: () => void = () => undefined;
    const first = one.run(async () => {
      order.push('one begins');
      await new Promise<void>((resolve) => (finish = resolve));
      order.push('one ends');
    });
    await until(() => order.length === 1);
    const second = other.run(() => {
      order.push('other');
      return Promise.resolve();
    });
    finish();
    await Promise.all([first, second]);
    expect(order).toEqual(['one begins', 'one ends', 'other']);
  });

  it('is given back when the work fails', async () => {
    const name = `lease-${newId()}`;
    await expectAsync(new Lease(name).run(() => Promise.reject(new Error('away')))).toBeRejectedWithError('away');
    let done = false;
    await new Lease(name).run(() => {
      done = true;
      return Promise.resolve();
    });
    expect(done).toBeTrue();
  });
});
