import { listening, plainSend } from '../common/plain-send'

/** The script of a house's page: sends a question, or an outage that was lived through; keeps the page for a night without a connection. What was typed stays when it is refused. */

const about = document.getElementById('house')
const token = about?.dataset.token ?? ''
const texts: Record<'asked' | 'told' | 'notSent' | 'failed' | 'offline', string> = JSON.parse(
  about?.textContent ?? '{}',
)

const send = (body: object) =>
  plainSend(`/api/house/${token}`, body, { failed: texts.failed, notSent: texts.notSent, label: labelOf })

/** A field as its label reads. */
const labelOf = (path: string): string =>
  (
    document.querySelector(`label[for="${path}"]`)?.textContent ??
    document.querySelector(`input[name="${path}"]`)?.closest('fieldset')?.querySelector('legend')
      ?.textContent ??
    ''
  ).trim()

for (const form of document.querySelectorAll<HTMLFormElement>('form[data-act]')) {
  form.addEventListener('submit', async event => {
    event.preventDefault()
    const [problem, told] = [form.querySelector('[role=alert]'), form.querySelector('[role=status]')]
    if (!problem || !told) return
    problem.textContent = ''
    told.textContent = ''
    const said = Object.fromEntries(
      [...new FormData(form)].map(([key, value]) => [
        key,
        key === 'hours' ? Number(String(value).trim().replace(',', '.') || Number.NaN) : String(value),
      ]),
    )
    const refused = await send({ act: form.dataset.act, ...said })
    problem.textContent = refused ?? ''
    if (refused) return
    told.textContent = form.dataset.act === 'ask' ? texts.asked : texts.told
    form.reset()
  })
  listening(form)
}

const offline = document.getElementById('offline')
const look = () => {
  if (!offline) return
  offline.hidden = navigator.onLine
  offline.textContent = navigator.onLine ? '' : texts.offline
}
addEventListener('online', look)
addEventListener('offline', look)
look()
if ('serviceWorker' in navigator)
  navigator.serviceWorker
    .register('/house/keep.js', { scope: '/house/' })
    .then(() => navigator.serviceWorker.ready)
    .then(({ active }) => active?.postMessage({ keep: location.pathname }))
    .catch(() => {})
