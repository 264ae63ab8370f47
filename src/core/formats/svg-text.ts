/** Text as XML holds it; characters that XML cannot hold at all are left out. */
export const escaped = (text: string) =>
  text
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters that XML 1.0 forbids
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')

/** Shortened to so many characters, whole letters. */
export const shortened = (text: string, most: number) => {
  const letters = [...text]
  return letters.length > most ? `${letters.slice(0, most - 1).join('')}…` : text
}
