interface Words {
  /** what cannot be told otherwise */
  failed: string
  notSent: string
  /** the label of a field, and what is said whole of it in place of the server’s words */
  label: (field: string) => string
  whole?: (field: string) => string | undefined
}

/** From now on a form is sent by its page’s script: until then its buttons, which the page brings along disabled, do nothing. */
export function listening(form: HTMLFormElement): void {
  for (const button of form.querySelectorAll('button')) button.disabled = false
}

/** Sends what was typed on a page that is plain HTML: what the server said against it, in words; null where it was taken. */
export async function plainSend(path: string, body: object, words: Words): Promise<string | null> {
  try {
    const answer = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (answer.ok) return null
    const said: { message?: string; faults?: { path: string; message: string }[] } = await answer
      .json()
      .catch(() => ({}))
    const [fault] = said.faults ?? []
    if (!fault) return said.message ?? words.failed
    const field = fault.path.split(/[.[]/)[0] ?? ''
    return words.whole?.(field) ?? `${words.label(field)} ${fault.message}.`.trim()
  } catch {
    return words.notSent
  }
}
