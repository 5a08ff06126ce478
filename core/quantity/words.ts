/** A text that begins a sentence. */
export const capital = (text: string): string => text.replace(/^./u, (first) => first.toUpperCase());
/** A text that goes on within one. */
export const uncapital = (text: string): string => text.replace(/^./u, (first) => first.toLowerCase());
