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
