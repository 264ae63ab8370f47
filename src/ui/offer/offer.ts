import SignaturePad from 'signature_pad'
import { listening, plainSend } from '../common/plain-send'

/** The script of a customer’s offer: a drawn name, an acceptance, a question. What was typed stays when it is refused. */

const texts: Record<string, string | undefined> = JSON.parse(
  document.getElementById('offer')?.textContent ?? '{}',
)

const byId = <T extends HTMLElement>(id: string) => document.getElementById(id) as T | null

const names: Record<string, string | undefined> = { name: texts.name, option: texts.which, text: texts.ask }
const send = (form: HTMLFormElement, body: object) =>
  plainSend(`/api/offer/${form.dataset.token}`, body, {
    failed: texts.failed ?? '',
    notSent: texts.notSent ?? '',
    label: field => names[field] ?? '',
    // the one fault that anybody meets is said whole
    whole: field => (field === 'signature' ? texts['refused.small'] : undefined),
  })

function accepting(form: HTMLFormElement) {
  const canvas = byId<HTMLCanvasElement>('signature')
  const problem = byId('accept-problem')
  const typed = byId<HTMLInputElement>('typed')
  if (!canvas || !problem) return
  const pad = new SignaturePad(canvas, { penColor: '#111', minWidth: 1, maxWidth: 3 })
  const sized = () => {
    const drawn = pad.toData()
    const by = Math.max(1, devicePixelRatio)
    canvas.width = canvas.offsetWidth * by
    canvas.height = canvas.offsetHeight * by
    canvas.getContext('2d')?.scale(by, by)
    pad.fromData(drawn)
  }
  addEventListener('resize', sized)
  sized()
  byId('again')?.addEventListener('click', () => pad.clear())
  form.addEventListener('submit', async event => {
    event.preventDefault()
    const said = new FormData(form)
    const option = said.get('option')
    const name = String(said.get('name') ?? '').trim()
    problem.textContent = ''
    if (!option) {
      problem.textContent = texts.chooseFirst ?? ''
      return
    }
    if (name.length < 2) {
      problem.textContent = texts.nameFirst ?? ''
      byId('name')?.focus()
      return
    }
    const to = 1000 / canvas.offsetWidth
    const strokes = pad
      .toData()
      .map(({ points }) => points.map(p => [Math.round(p.x * to * 10) / 10, Math.round(p.y * to * 10) / 10]))
    const refused = await send(form, {
      act: 'accept',
      option,
      name,
      signature: strokes,
      ...(typed?.checked && { typed: true }),
    })
    if (refused) problem.textContent = refused
    else location.reload()
  })
}

function asking(form: HTMLFormElement) {
  const problem = byId('ask-problem')
  const told = byId('asked')
  const text = byId<HTMLTextAreaElement>('text')
  if (!problem || !told || !text) return
  form.addEventListener('submit', async event => {
    event.preventDefault()
    told.textContent = ''
    problem.textContent = ''
    const refused = await send(form, { act: 'ask', text: text.value })
    if (refused) {
      problem.textContent = refused
      return
    }
    told.textContent = texts.asked ?? ''
    text.value = ''
  })
}

const accept = byId<HTMLFormElement>('accept')
if (accept) {
  accepting(accept)
  listening(accept)
}
const ask = byId<HTMLFormElement>('ask')
if (ask) {
  asking(ask)
  listening(ask)
}
