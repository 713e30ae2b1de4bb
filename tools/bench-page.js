/**
 * Runs in the page: moves a slider `count` times over its range. For each tick, milliseconds from the tick until the last
 * stroke on a canvas or the last change of the watched element (drawn), and until the frame after it was handed over
 * (shown).
 * Between the ticks it does a fixed piece of arithmetic that allocates nothing: how long that takes at worst is what the
 * machine itself takes away in the same minutes.
 * @param watch `canvas`, or the selector of an element whose text changes
 */
async function ticks(count, selector, low, high, watch) {
  const WARM_UP = 100;
  const slider = document.querySelector(selector);
  let lastStroke = 0;
  let strokes = 0;
  const drew = () => {
    lastStroke = performance.now();
    strokes += 1;
  };
  const prototype = CanvasRenderingContext2D.prototype;
  const { stroke } = prototype;
  const observer = new MutationObserver(drew);
  if (watch === 'canvas') {
    prototype.stroke = function (...args) {
      stroke.apply(this, args);
      drew();
    };
  } else {
    observer.observe(document.querySelector(watch), { subtree: true, characterData: true, childList: true });
  }
  const afterFrame = () =>
    new Promise((resolve) =>
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => resolve();
        port2.postMessage(null);
      }),
    );
  const drawn = [];
  const shown = [];
  const fixed = [];
  let rounds = 20_000;
  const work = () => {
    let x = 0.5;
    for (let i = 0; i < rounds; i++) x = Math.sin(x) + 0.3;
    return x;
  };
  // About as long as a tick takes, once it is compiled.
  for (let warm = 0; warm < 60; warm++) work();
  for (let ms = 0; ms < 3;) {
    const start = performance.now();
    work();
    ms = performance.now() - start;
    if (ms < 3) rounds = Math.ceil(rounds * 1.4);
  }
  for (let i = 0; i < count + WARM_UP; i++) {
    await afterFrame();
    const before = strokes;
    const start = performance.now();
    // Steps that are wide enough to change the picture at every tick.
    slider.value = String(low + (((i * 13) % 200) / 200) * (high - low));
    slider.dispatchEvent(new Event('input', { bubbles: true }));
    await afterFrame();
    if (strokes === before) await afterFrame();
    if (strokes === before) throw new Error('a tick was not drawn');
    if (i >= WARM_UP) {
      drawn.push(lastStroke - start);
      shown.push(performance.now() - start);
      await afterFrame();
      const fixedStart = performance.now();
      work();
      fixed.push(performance.now() - fixedStart);
    }
  }
  prototype.stroke = stroke;
  observer.disconnect();
  return { drawn, shown, fixed };
}
