/** Waits for what a test uses. */
export async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setImmediate(resolve));
}
