import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { Screen, openBench } from '../../testing/harness';
import { signOf, storedUi, uiFeature, unitsOf } from '../state/ui';
import { FirstStart } from './first-start';

describe('the first start on a device', () => {
  it('units and decimal sign follow the language of the browser; a point is nobody’s word', () => {
    // Who writes a decimal comma: CLDR by the browser’s own Intl [general-purpose reference]
    for (const [language, system, sign] of [
      ['en-US', 'inch', null],
      ['en', 'inch', null],
      ['en-GB', 'metric', null],
      ['de-DE', 'metric', 'comma'],
      ['fr', 'metric', 'comma'],
      ['sv-SE', 'metric', 'comma'],
      ['es-US', 'inch', null],
      ['ja', 'metric', null],
    ] as const)
      expect([unitsOf(language), signOf(language)])
        .withContext(language)
        .toEqual([system, sign]);
  });

  it('is asked on a device that chose nothing, and never again; what is broken in its store asks nobody', () => {
    expect(storedUi(null, false, 'de')).toEqual(jasmine.objectContaining({ asked: false, decimal: 'comma' }));
    expect(storedUi('{"asked":false,"decimal":"comma"}', false).asked).toBeFalse();
    expect(storedUi('{"who":"Mo"}', false).asked).toBeTrue();
    expect(storedUi('{"decimal":null}', false, 'de').decimal).toBeNull();
    expect(storedUi('{"decimal":"dash"}', false, 'de').decimal).toBe('comma');
  });

  it('a comma that is chosen makes 1,480 a decimal, and the question goes', async () => {
    const bench = openBench();
    const screen = await Screen.of(FirstStart);
    expect(screen.all('section').length).toBe(1);
    await screen.click(screen.all('label').find((label) => label.textContent?.trim() === '1,5') as HTMLElement);
    expect(bench.decimal()).toBe('comma');
    await screen.click('So it is');
    expect(screen.all('section').length).toBe(0);
    expect(TestBed.inject(Store).selectSignal(uiFeature.selectAsked)()).toBeTrue();
  });
});
