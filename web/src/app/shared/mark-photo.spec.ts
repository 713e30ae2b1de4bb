import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Screen, openBench } from '../../testing/harness';
import { Outbox } from '../state/outbox';
import { MarkPhoto } from './mark-photo';

const PHOTO = 'c'.repeat(64);

@Component({
  selector: 'hs-host',
  imports: [MarkPhoto],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<hs-mark-photo [photo]="photo" what="races" (kept)="kept.push($event)" (closed)="closed = true" />`,
})
class Host {
  readonly photo = PHOTO;
  readonly kept: string[] = [];
  closed = false;
}

async function open(): Promise<Screen<Host>> {
  const picture = document.createElement('canvas');
  picture.width = 200;
  picture.height = 100;
  const data = picture.toDataURL('image/jpeg');
  // The photo itself comes from the server; here it is a picture of its own.
  spyOnProperty(HTMLImageElement.prototype, 'src', 'set').and.callFake(function (this: HTMLImageElement) {
    this.setAttribute('src', data);
  });
  openBench();
  const screen = await Screen.of(Host);
  await screen.until(() => screen.find<HTMLCanvasElement>('canvas').width === 200);
  return screen;
}

async function drag(screen: Screen<Host>, from: [number, number], to: [number, number]): Promise<void> {
  const canvas = screen.find<HTMLCanvasElement>('canvas');
  canvas.setPointerCapture = () => undefined;
  const at = (type: string, [x, y]: [number, number]): void => {
    const event = new PointerEvent(type, { pointerId: 1, bubbles: true });
    Object.defineProperty(event, 'offsetX', { value: x });
    Object.defineProperty(event, 'offsetY', { value: y });
    canvas.dispatchEvent(event);
  };
  at('pointerdown', from);
  at('pointermove', to);
  at('pointerup', to);
  await screen.fixture.whenStable();
}

describe('marks on a photo', () => {
  it('are drawn with a finger, taken back, and kept as a photo of their own', async () => {
    const screen = await open();
    const canvas = screen.find<HTMLCanvasElement>('canvas');
    expect([canvas.width, canvas.height]).toEqual([200, 100]);
    await drag(screen, [20, 20], [80, 60]);
    expect(canvas.getAttribute('aria-label')).toContain('1 marks');
    screen.find<HTMLInputElement>('input[value="circle"]').click();
    await drag(screen, [150, 50], [170, 50]);
    expect(canvas.getAttribute('aria-label')).toContain('2 marks');
    // A tap draws nothing.
    await drag(screen, [10, 10], [11, 10]);
    expect(canvas.getAttribute('aria-label')).toContain('2 marks');
    await screen.click('Take the last off');
    expect(canvas.getAttribute('aria-label')).toContain('1 marks');
    const sent: string[] = [];
    spyOn(TestBed.inject(Outbox), 'putPhoto').and.callFake((id) => {
      sent.push(id);
      return Promise.resolve();
    });
    await screen.click('Keep it marked');
    await screen.until(() => screen.fixture.componentInstance.kept.length > 0);
    expect(screen.fixture.componentInstance.kept.length).toBe(1);
    expect(sent).toEqual(screen.fixture.componentInstance.kept);
    expect(screen.fixture.componentInstance.kept[0]).not.toBe(PHOTO);
  });

  it('close without keeping anything', async () => {
    const screen = await open();
    await screen.click('Close');
    expect(screen.fixture.componentInstance.closed).toBeTrue();
    expect(screen.fixture.componentInstance.kept).toEqual([]);
  });
});
