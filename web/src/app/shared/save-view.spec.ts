import { drawingSvg, saveView, tableCsv } from './save-view';

function put(html: string): HTMLElement {
  const host = document.createElement('main');
  host.innerHTML = html;
  document.body.append(host);
  return host;
}

describe('what is on a sheet as files', () => {
  it('a table with its head, what can be seen and what is in its fields', () => {
    const host = put(
      `<table><thead><tr><th>Part</th><th>Out</th></tr></thead>
       <tbody><tr><th>C-clips</th><td><label>out</label><input value="2" /></td></tr>
       <tr><th>=1+1</th><td>a, b</td></tr></tbody></table>`,
    );
    const table = host.querySelector('table');
    if (!table) throw new Error('no table');
    const lines = tableCsv(table).trim().split(/\r?\n/);
    expect(lines[0]).toBe('Part,Out');
    expect(lines[1]).toBe('C-clips,out 2');
    // No spreadsheet takes it for a formula, and a comma stays in its cell.
    expect(lines[2]).toContain("'=1+1");
    expect(lines[2]).toContain('"a, b"');
  });

  it('a drawing carries what its style sheet gave it', () => {
    const host = put(
      `<style>.ring { fill: none; stroke: rgb(10, 20, 30); }</style>
       <svg width="120" height="80"><circle class="ring" cx="10" cy="10" r="5"></circle></svg>`,
    );
    const drawing = host.querySelector('svg');
    if (!drawing) throw new Error('no drawing');
    const parsed = new DOMParser().parseFromString(drawingSvg(drawing), 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect(parsed.querySelector('circle')?.getAttribute('style')).toContain('stroke:rgb(10, 20, 30)');
    expect(parsed.documentElement.getAttribute('viewBox')).toBe('0 0 120 80');
    // The one on the sheet stays as it was.
    expect(drawing.querySelector('circle')?.hasAttribute('style')).toBeFalse();
  });

  it('each is a file of its own; icons are none', () => {
    const host = put(
      '<table><tr><td>1</td></tr></table><table><tr><td>2</td></tr></table><svg width="16" height="16"></svg><svg width="200" height="90"></svg>',
    );
    const named: string[] = [];
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      named.push(this.download);
    });
    expect(saveView('tables', host)).toBe(2);
    expect(saveView('drawings', host)).toBe(1);
    expect(named.map((name) => name.split('.').at(-1))).toEqual(['csv', 'csv', 'svg']);
    expect(new Set(named).size).toBe(3);
    expect(saveView('tables', put('<p>nothing</p>'))).toBe(0);
  });
});
