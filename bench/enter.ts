/** A session of the demo, entered as somebody would: for a browser, and as the header of a program. */
export async function enter(url: string, as: 'designer' | 'technician' | 'owner' = 'designer') {
  const answer = await fetch(`${url}/api/auth/demo/enter`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ as }),
  })
  if (!answer.ok) throw new Error(`the demo was not entered: ${answer.status} ${await answer.text()}`)
  const pairs = answer.headers.getSetCookie().map(set => set.split(';', 1)[0] ?? '')
  const cookies = pairs.map(pair => {
    const at = pair.indexOf('=')
    return {
      name: pair.slice(0, at),
      value: pair.slice(at + 1),
      domain: new URL(url).hostname,
      path: '/',
      expires: -1,
      httpOnly: true,
      secure: false,
      sameSite: 'Lax' as const,
    }
  })
  return { storageState: { cookies, origins: [] }, cookie: pairs.join('; ') }
}
