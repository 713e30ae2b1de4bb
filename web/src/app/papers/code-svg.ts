/** A text as a code to scan, as a picture; the package is fetched when the first one is made. */
export async function codeSvg(text: string): Promise<string> {
  const { default: code } = await import('qrcode');
  return code.toString(text, { type: 'svg', errorCorrectionLevel: 'M', margin: 1 });
}
