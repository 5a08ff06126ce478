/** Whether a key goes to something that is being written, or chosen from by keys. */
export function isWriting({ target, key }: KeyboardEvent): boolean {
  const element = target as HTMLElement;
  // A choice that was tapped keeps the focus, and of all keys it takes but these.
  if (element.matches('input[type="radio"], input[type="checkbox"]')) return key === ' ' || key.startsWith('Arrow');
  return element.closest('input, textarea, select, [contenteditable], [role="combobox"], .ant-modal') !== null;
}
