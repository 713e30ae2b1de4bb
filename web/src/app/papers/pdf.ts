import type { TDocumentDefinitions } from 'pdfmake/interfaces';

/** Makes a document into a PDF; the package and its fonts are fetched from our own server when the first one is made. */
export async function pdfOf(document: TDocumentDefinitions): Promise<Blob> {
  const [{ default: maker }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  maker.addVirtualFileSystem(fonts as Record<string, string>);
  return maker.createPdf(document).getBlob();
}
