import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Me, People } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import { PersonPanel } from '../frame/person-panel';
import { ApiError, api } from '../state/api';
import { Session, onlyIn } from '../state/session';
import { PeoplePage } from './people-page';
import { SignInPage } from './sign-in-page';

const ADA = { id: '50000000-0000-4000-8000-000000000001', name: 'Ada', role: 'owner' as const };
const me = (more: Partial<Me> = {}): Me => ({
  door: 'people',
  owned: true,
  person: null,
  pin: false,
  others: [],
  ...more,
});
const people = (): People => ({
  people: [{ ...ADA, active: true, created: '2026-11-30T08:00:00.000Z', seen: null, devices: 1 }],
  invitations: [],
  trustPort: null,
});
const type = (screen: Screen<unknown>, id: string, text: string): void => {
  screen.find<HTMLInputElement>(`#${id}`).value = text;
};

describe('the door', () => {
  it('what is wrong is said, and nothing is taken; who is in goes where they wanted, within the app alone', async () => {
    openBench(setUpBuild());
    const enter = spyOn(api, 'signIn').and.rejectWith(new ApiError(401, 'Name and password do not belong together.'));
    const go = spyOn(TestBed.inject(Router), 'navigateByUrl').and.resolveTo(true);
    const screen = await Screen.of(SignInPage, { to: '//elsewhere.example' });
    type(screen, 'in-name', 'Ada');
    type(screen, 'in-password', 'a long word of ours');
    await screen.click('Sign in');
    expect(screen.text).toContain('do not belong together');
    expect(go).not.toHaveBeenCalled();
    enter.and.resolveTo(me({ person: ADA }));
    await screen.click('Sign in');
    expect(go).toHaveBeenCalledOnceWith('/');
    expect(TestBed.inject(Session).person()?.name).toBe('Ada');
  });

  it('stands before every page of a shop that asks, and before none of one that does not', async () => {
    openBench(setUpBuild());
    const session = TestBed.inject(Session);
    const at = async (answer: Me) => {
      session.take(answer);
      spyOn(session, 'ready').and.resolveTo();
      const way = await TestBed.runInInjectionContext(() => onlyIn({} as never, { url: '/library' } as never));
      (session.ready as jasmine.Spy).and.callThrough();
      return way === true ? 'in' : TestBed.inject(Router).serializeUrl(way as never);
    };
    expect(await at(me())).toBe('/sign-in?to=%2Flibrary');
  });
});

describe('people', () => {
  beforeEach(() => spyOn(api, 'calendarLink').and.resolveTo({ key: null }));

  it('the first owner is made on the machine; two passwords that differ make nobody', async () => {
    openBench(setUpBuild());
    spyOn(api, 'me').and.resolveTo(me({ door: 'alone', owned: false }));
    spyOn(api, 'people').and.resolveTo({ ...people(), people: [] });
    spyOn(api, 'audit').and.resolveTo([]);
    const make = spyOn(api, 'firstOwner').and.resolveTo(me({ door: 'alone' }));
    const screen = await Screen.of(PeoplePage);
    await screen.fixture.whenStable();
    type(screen, 'owner-name', 'Ada');
    type(screen, 'owner-password', 'a long word of ours');
    type(screen, 'owner-again', 'another word');
    await screen.click('Make the owner');
    expect(make).not.toHaveBeenCalled();
    expect(screen.text).toContain('not the same');
    type(screen, 'owner-again', 'a long word of ours');
    await screen.click('Make the owner');
    expect(make).toHaveBeenCalledOnceWith('Ada', 'a long word of ours');
    expect(screen.text).toContain('Who may come in');
  });

  it('an invitation is shown once, and says where it leads nowhere; what the server refuses is said', async () => {
    openBench(setUpBuild());
    spyOn(api, 'me').and.resolveTo(me({ person: ADA }));
    spyOn(api, 'people').and.resolveTo({ ...people(), trustPort: 8018 });
    spyOn(api, 'audit').and.resolveTo([
      { id: 2, at: '2026-11-30T08:00:00.000Z', who: 'Ada', from: '192.0.2.7', did: 'signed in', about: '' },
    ]);
    const token = 'x'.repeat(43);
    spyOn(api, 'invite').and.resolveTo({ id: ADA.id, token, until: '2026-12-03T08:00:00.000Z' });
    const screen = await Screen.of(PeoplePage);
    await screen.fixture.whenStable();
    await screen.until(() => screen.text.includes(':8018/'));
    expect(screen.text).toContain('192.0.2.7');
    await screen.click('Make an invitation');
    await screen.until(() => screen.text.includes(`invited#${token}`));
    expect(screen.text).toContain('this machine alone');
    spyOn(api, 'changePerson').and.rejectWith(new ApiError(409, 'A shop has an owner: make another one first.'));
    await screen.click('Shut out: Ada');
    expect(screen.text).toContain('make another one first');
  });

  it('a tablet changes hands by a tap and a PIN; another PIN changes nothing', async () => {
    openBench(setUpBuild());
    const session = TestBed.inject(Session);
    const bo = { id: '50000000-0000-4000-8000-000000000002', name: 'Bo' };
    session.take(me({ person: ADA, others: [bo] }));
    const change = spyOn(api, 'switchPerson').and.rejectWith(new ApiError(401, 'That is not their PIN.'));
    const screen = await Screen.of(PersonPanel);
    await screen.click('Bo');
    type(screen, `pin-${bo.id}`, '1111');
    await screen.click('Change to Bo');
    expect(screen.text).toContain('not their PIN');
    expect(session.person()?.name).toBe('Ada');
    change.and.resolveTo(me({ person: { ...bo, role: 'builder' } }));
    type(screen, `pin-${bo.id}`, '2580');
    await screen.click('Change to Bo');
    expect(change.calls.mostRecent().args).toEqual([bo.id, '2580']);
    expect(session.person()?.name).toBe('Bo');
  });
});
