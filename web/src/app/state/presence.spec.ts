import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Changed, Me } from '@hot-spline/model';
import { Subject } from 'rxjs';
import { openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import { api } from './api';
import { Changes } from './changes';
import { Presence } from './presence';
import { Session } from './session';

const BUILD = '30000000-0000-4000-8000-000000000001';
const ADA = { id: '50000000-0000-4000-8000-000000000001', name: 'Ada', role: 'owner' as const };
const me = (door: Me['door']): Me => ({
  door,
  owned: true,
  person: door === 'people' ? ADA : null,
  pin: false,
  others: [],
});

describe('who is where', () => {
  const heard = new Subject<Changed>();
  const begin = (door: Me['door'], url = `/builds/${BUILD}/work?tab=step&step=clean`) => {
    openBench(setUpBuild());
    spyOnProperty(TestBed.inject(Router), 'url').and.returnValue(url);
    const changes = TestBed.inject(Changes) as unknown as { heard: Subject<Changed> };
    changes.heard.subscribe((change) => heard.next(change));
    TestBed.inject(Session).take(me(door));
    return { presence: TestBed.inject(Presence), hear: (change: Changed) => changes.heard.next(change) };
  };
  const bo = (more: object = {}): Changed => ({
    ...{ of: 'presence', tab: '70000000-0000-4000-8000-000000000002', who: 'Bo', build: BUILD },
    ...{ sheet: 'work', step: 'clean', field: '' },
    ...more,
  });

  it('is heard of this build alone: at a step, in a field, gone', () => {
    const { presence, hear } = begin('people');
    hear(bo());
    expect(presence.others().map(({ who, sheet }) => [who, sheet])).toEqual([['Bo', 'work']]);
    expect([presence.at('clean'), presence.at('caps'), presence.at('')]).toEqual(['Bo', '', '']);
    hear(bo({ sheet: 'mesh', step: '', field: 'backlash-1-rear' }));
    expect([presence.in('backlash-1-rear'), presence.in(''), presence.at('clean')]).toEqual(['Bo', '', '']);
    hear(bo({ build: '30000000-0000-4000-8000-000000000009' }));
    expect(presence.others()).toEqual([]);
    hear(bo({ build: null }));
    expect(presence.others()).toEqual([]);
  });

  it('is told to others once for what happens together, and again to who comes; nobody tells it on a machine alone', async () => {
    const tell = spyOn(api, 'presence').and.resolveTo({ heard: 1 });
    const { presence, hear } = begin('people');
    presence.types('build-vehicle');
    TestBed.tick();
    const until = async (count: number): Promise<void> => {
      while (tell.calls.count() < count) await new Promise((resolve) => setTimeout(resolve, 20));
    };
    await until(1);
    expect(tell.calls.mostRecent().args[0]).toEqual(
      jasmine.objectContaining({ who: 'Ada', build: BUILD, sheet: 'work', step: 'clean', field: 'build-vehicle' }),
    );
    hear(bo());
    await until(2);
    expect(tell.calls.count()).toBe(2);
    TestBed.resetTestingModule();
    tell.calls.reset();
    jasmine.clock().install();
    const alone = begin('alone');
    alone.presence.types('build-vehicle');
    TestBed.tick();
    alone.hear(bo());
    jasmine.clock().tick(60_000);
    expect(tell).not.toHaveBeenCalled();
    jasmine.clock().uninstall();
  });
});
