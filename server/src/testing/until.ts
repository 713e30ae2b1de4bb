/** Waits for what a test uses. */
export async function until(holds: () => boolean): Promise<void> {
  while (!holds()) await new Promise((resolve) => setImmediate(resolve));
}
