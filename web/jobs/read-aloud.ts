/** True where the browser has a voice. */
export const canReadAloud = (): boolean =>
  typeof speechSynthesis !== 'undefined' && typeof SpeechSynthesisUtterance === 'function';

/** Reads a text by the browser's own voice, in place of what it was reading. */
export function readAloud(text: string): void {
  if (!canReadAloud()) return;
  speechSynthesis.cancel();
  const speech = new SpeechSynthesisUtterance(text);
  speech.lang = 'en';
  speechSynthesis.speak(speech);
}

export function stopReading(): void {
  if (canReadAloud()) speechSynthesis.cancel();
}
