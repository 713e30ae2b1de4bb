import { LABEL_SHEETS, labelPlace, labelSheet, type LabelOf, type LabelSheetName } from './label-sheet';
import { codeSvg } from './code-svg';
import { pdfOf } from './pdf';

const NAMES = Object.keys(LABEL_SHEETS) as LabelSheetName[];

describe('labels on sheets', () => {
  it('lie within their sheet, none over another, as many as it says, alike far from both sides', () => {
    for (const name of NAMES) {
      const sheet = LABEL_SHEETS[name];
      const each = sheet.across * sheet.down;
      const [, said] = /, (\d+) on/.exec(name) ?? [, '1'];
      expect(each).withContext(name).toBe(Number(said));
      const places = Array.from({ length: each }, (_, i) => labelPlace(sheet, i));
      for (const { page, x, y } of places) {
        expect(page).toBe(0);
        expect(x).withContext(name).toBeGreaterThanOrEqual(0);
        expect(x + sheet.size[0])
          .withContext(name)
          .toBeLessThanOrEqual(sheet.page[0] + 1e-9);
        expect(y).withContext(name).toBeGreaterThanOrEqual(0);
        expect(y + sheet.size[1])
          .withContext(name)
          .toBeLessThanOrEqual(sheet.page[1] + 1e-9);
      }
      for (const [i, a] of places.entries())
        for (const b of places.slice(i + 1))
          expect(Math.abs(a.x - b.x) >= sheet.size[0] - 1e-9 || Math.abs(a.y - b.y) >= sheet.size[1] - 1e-9)
            .withContext(name)
            .toBeTrue();
      const last = places.at(-1);
      expect((places[0]?.x ?? 0) + (last?.x ?? 0) + sheet.size[0])
        .withContext(name)
        .toBeCloseTo(sheet.page[0], 6);
      expect((places[0]?.y ?? 0) + (last?.y ?? 0) + sheet.size[1])
        .withContext(name)
        .toBeCloseTo(sheet.page[1], 6);
      expect(labelPlace(sheet, each)).toEqual({ ...labelPlace(sheet, 0), page: 1 });
    }
  });

  it('say all that there is room for in smaller letters before anything is left out, warnings before facts', () => {
    type Stack = { text: string; fontSize: number; color?: string }[];
    const stackOf = (label: LabelOf): Stack => {
      const { content } = labelSheet([label], ['<svg/>'], '70 × 37, 24 on A4');
      const [, one] = content as unknown as [unknown, { columns: [{ stack: Stack }] }];
      return one.columns[0].stack;
    };
    const facts = [
      '41/10 4.100, helical',
      'ring bolts right-hand thread, 12 of M12x1.25',
      'pinion shim 1.42 mm, under the head',
    ];
    const stack = stackOf({ title: 'Siskin', warns: ['LEFT-HAND THREAD'], facts, code: 'X' });
    const words = stack.map(({ text }) => text).join(' ');
    for (const said of ['LEFT-HAND THREAD', 'right-hand thread', 'under the head']) expect(words).toContain(said);
    expect(words).not.toContain('…');
    const red = stack.filter(({ color }) => color === '#b3261e').map(({ text }) => text);
    expect([red.join(' '), stack[1]?.text]).toEqual(['LEFT-HAND THREAD', red[0]]);
    const few = stackOf({ title: 'Siskin', facts: facts.slice(0, 1), code: 'X' });
    expect(few.at(-1)?.fontSize ?? 0).toBeGreaterThan(stack.at(-1)?.fontSize ?? 99);
    const high = stack.reduce((sum, { fontSize }) => sum + fontSize * 1.2, 0);
    // 37 mm less 2.5 mm at either edge, in points of 1/72 in.
    expect(high).toBeLessThanOrEqual(((37 - 5) * 72) / 25.4);
  });

  it('begin at the first free one, and go on on the next sheet: as many pages as a PDF has', async () => {
    const label: LabelOf = {
      title: 'W'.repeat(90),
      facts: Array.from({ length: 30 }, () => 'M'.repeat(200)),
      code: 'X-1',
    };
    const svg = await codeSvg(label.code);
    for (const [name, labels, first, pages] of [
      ['70 × 37, 24 on A4', 24, 0, 1],
      ['70 × 37, 24 on A4', 24, 1, 2],
      ['48.5 × 25.4, 40 on A4', 3, 39, 2],
      ['62 × 29, one by one', 3, 0, 3],
    ] as const) {
      const all = Array.from({ length: labels }, () => label);
      const blob = await pdfOf(
        labelSheet(
          all,
          all.map(() => svg),
          name,
          first,
        ),
      );
      const text = new TextDecoder('latin1').decode(await blob.arrayBuffer());
      const found = text.match(/\/Type\s*\/Page[^s]/g)?.length ?? 0;
      // What does not fit is cut: a title of wide letters and thirty lines make no page more.
      expect(found).withContext(`${name} ${labels} ${first}`).toBe(pages);
    }
  });
});
