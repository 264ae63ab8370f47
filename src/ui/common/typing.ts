/** Whether a key pressed there is a letter of a text, and no command. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.matches(
    'input:not([type=radio], [type=checkbox], [type=range]), textarea, select, [contenteditable]',
  )
