import { TestBed } from '@angular/core/testing';
import { starPattern } from '@hot-spline/core';
import { plateBuild } from '../../testing/drift';
import { openBench } from '../../testing/harness';
import { SPEAKER, Sound, type Speaker } from './sound';
import { storedUi } from './ui';

class Heard implements Speaker {
  readonly all: string[] = [];
  say(text: string): void {
    this.all.push(text);
  }
  tone(hertz: readonly number[]): void {
    this.all.push(hertz.join(' '));
  }
}

describe('sound', () => {
  it('is off until somebody switches it on, stays so on this device, and a taken reading is one tone', () => {
    const heard = new Heard();
    TestBed.configureTestingModule({ providers: [{ provide: SPEAKER, useValue: heard }] });
    const bench = openBench(plateBuild());
    const sound = TestBed.inject(Sound);
    const read = () =>
      bench.record(
        { what: 'case-depth', axle: 'rear', side: 'left' },
        { typed: '12.8 mm', value: 12.8, unit: 'mm' },
        'Depth gauge',
      );
    read();
    sound.say('Bolt 1.');
    expect(heard.all).toEqual([]);
    sound.flip();
    read();
    sound.near();
    sound.say(`Bolt ${starPattern(6)[1]}.`);
    expect(heard.all).toEqual(['880', '660 990', 'Bolt 4.']);
    expect(storedUi(JSON.stringify({ sound: true }), false).sound).toBeTrue();
    expect(storedUi('{"sound":"yes"}', false).sound).toBeFalse();
  });
});
