import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

/** Short letters, a stroke, short letters: km/h, rad/s, N·m/rad. */
const UNIT = /(?<!\p{L})([\p{L}·]{1,5}\/[\p{L}²]{1,4})(?!\p{L})/u;
const PARTS = ['text', 'stack', 'ul', 'ol', 'columns', 'table', 'body'];

/** The content with each unit in one piece: the package would end a line behind the stroke. Shapes stay as they are. */
export function unitsWhole(content: Content): Content {
  const whole = (node: unknown): unknown => {
    if (typeof node === 'string')
      return UNIT.test(node)
        ? { text: node.split(UNIT).map((text, i) => (i % 2 === 1 ? { text, noWrap: true } : text)) }
        : node;
    if (Array.isArray(node)) return node.map(whole);
    if (typeof node !== 'object' || node === null) return node;
    return Object.fromEntries(
      Object.entries(node).map(([key, value]) => [key, PARTS.includes(key) ? whole(value) : value]),
    );
  };
  return whole(content) as Content;
}

/** Makes a document into a PDF; the package and its fonts are fetched from our own server when the first one is made. */
export async function pdfOf(document: TDocumentDefinitions): Promise<Blob> {
  const [{ default: maker }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  maker.addVirtualFileSystem(fonts as Record<string, string>);
  return maker.createPdf({ ...document, content: unitsWhole(document.content) }).getBlob();
}
