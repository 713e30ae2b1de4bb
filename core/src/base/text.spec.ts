import fc from 'fast-check';
import { cutText } from './text';

describe('cutting a text', () => {
  it('leaves what is short enough', () => {
    expect(cutText('Redstart', 8)).toBe('Redstart');
  });

  it('never cuts a character in two', () => {
    const flag = '\u{1F1F8}\u{1F1EA}'; // two regional indicators, four UTF-16 units
    expect(cutText(`${'x'.repeat(71)}${flag}`, 73)).toBe('x'.repeat(71));
    expect(cutText(`e\u0301a`, 1)).toBe('');
    expect(cutText('a\u{1F600}', 2)).toBe('a');
  });

  it('is well formed and short enough whatever it is given', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.nat(20), (text, most) => {
        const cut = cutText(text, most);
        expect(cut.length).toBeLessThanOrEqual(most);
        expect(text.startsWith(cut)).toBeTrue();
        expect(cut).not.toMatch(/[\ud800-\udbff]$/);
      }),
    );
  });
});
