/** Whether a key goes to something that is being written. */
export function isWriting({ target }: KeyboardEvent): boolean {
  const writing = 'input, textarea, select, [contenteditable], [role="combobox"], .ant-modal';
  return (target as HTMLElement).closest(writing) !== null;
}
