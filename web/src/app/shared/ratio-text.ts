/** A ratio as typed; tooth counts as the ratio that they make. */
export const ratioText = (value: number, typed: string): string => (/[/:]/.test(typed) ? value.toFixed(3) : typed);
