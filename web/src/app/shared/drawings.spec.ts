import { drawnBy, rowsOf, saveAll, savedIn, svgOf } from './drawings';

function page(html: string): HTMLElement {
  const root = document.createElement('div');
  root.innerHTML = html;
  document.body.append(root);
  return root;
}

describe('what a sheet draws and lists', () => {
  let root: HTMLElement;
  afterEach(() => root.remove());
  const first = (selector: string): Element => {
    const found = root.querySelector(selector);
    if (!found) throw new Error(`no ${selector}`);
    return found;
  };

  it('is found in its order by its own name; marks, icons and what is not shown are none', () => {
    root = page(`
      <svg viewBox="0 0 16 16" width="16" height="16" aria-label="fits"></svg>
      <section aria-label="Wear"><table><tr><td>1</td></tr></table></section>
      <svg viewBox="0 0 200 100" width="200" height="100" aria-label="Bolt in its hole"></svg>
      <div aria-hidden="true"><svg viewBox="0 0 200 100" width="200" height="100"></svg></div>
      <table style="display: none"><tr><td>2</td></tr></table>
      <table><caption>Steps</caption><tr><td>3</td></tr></table>
      <svg viewBox="0 0 99 99" width="99" height="99" aria-label="${'far too long a name '.repeat(6)}"></svg>`);
    const found = savedIn(root);
    expect(found.map(({ of, name }) => [of, name]).slice(0, 3)).toEqual([
      ['table', 'Wear'],
      ['drawing', 'Bolt in its hole'],
      ['table', 'Steps'],
    ]);
    expect(found.length).toBe(4);
    expect(found[3]?.name).toMatch(/^far too long.* …$/);
  });

  it('stands alone as SVG: looks of the style sheet are written in, nothing of the page stays', () => {
    root = page(`
      <style>.warm { fill: rgb(200, 10, 20); stroke-width: 3px }</style>
      <svg viewBox="0 0 200 100" width="200" height="100" aria-label="A" onclick="x()" class="x" tabindex="0">
        <rect class="warm" width="10" height="5" /><text y="9">2 &lt; 3</text>
      </svg>`);
    const svg = svgOf(first('svg'));
    const parsed = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    const rect = parsed.querySelector('rect');
    expect(rect?.getAttribute('style')).toContain('fill: rgb(200, 10, 20)');
    expect(rect?.getAttribute('style')).toContain('stroke-width: 3px');
    expect(parsed.querySelector('text')?.textContent).toBe('2 < 3');
    expect(parsed.documentElement.getAttribute('width')).toBe('200');
    for (const gone of ['class=', 'onclick', 'tabindex']) expect(svg).not.toContain(gone);
    // What is on the page is left as it was.
    expect(first('rect').getAttribute('class')).toBe('warm');
    expect(first('rect').getAttribute('style')).toBeNull();
  });

  it('is drawn anew where it is no SVG', () => {
    root = page(
      '<hs-chart style="display: block; width: 300px; height: 100px"><div role="img" aria-label="Fan"></div></hs-chart>',
    );
    expect(savedIn(root)).toEqual([]);
    drawnBy(first('hs-chart'), () => '<svg/>');
    expect(savedIn(root).map(({ name }) => name)).toEqual(['Fan']);
    expect(svgOf(first('hs-chart'))).toBe('<svg/>');
  });

  it('tables are read as they are seen: fields, what is chosen, no buttons, no columns of buttons alone', () => {
    root = page(`
      <table>
        <thead><tr><th>Part</th><th>Side</th><th>Out</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
        <tbody>
          <tr>
            <th>C-clips</th>
            <td><label><input type="radio" name="s" />left</label><label><input type="radio" name="s" checked />right</label></td>
            <td><input value="2" /> <button>+</button></td>
            <td><button>Remove</button></td>
          </tr>
          <tr><th>Shims</th><td><select><option>a</option><option selected>b</option></select></td><td><button><b>0.35</b><i>mm</i></button></td><td></td></tr>
          <tr><td colspan="4">That is all.</td></tr>
        </tbody>
      </table>`);
    expect(rowsOf(first('table'))).toEqual([
      ['Part', 'Side', 'Out'],
      ['C-clips', 'right', '2'],
      ['Shims', 'b', '0.35 mm'],
      ['That is all.', '', ''],
    ]);
    expect(rowsOf(document.createElement('table'))).toEqual([]);
  });

  it('all of a kind are handed out, each by its name, and no other', async () => {
    root = page(`
      <table aria-label="Gears: 1 to 6"><tr><th>Gear</th></tr><tr><td>=1+1</td></tr></table>
      <table><caption>Steps</caption><tr><td>3</td></tr></table>
      <svg viewBox="0 0 200 100" width="200" height="100" aria-label="Bolt"></svg>`);
    const files: string[] = [];
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      files.push(this.download);
    });
    await saveAll('table', root);
    expect(files).toEqual(['gears-1-to-6.csv', 'steps.csv']);
    await saveAll('drawing', root);
    expect(files.slice(2)).toEqual(['bolt.svg']);
  });
});
