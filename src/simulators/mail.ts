import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'

/** A letter that came in. */
export interface Received {
  to: string
  subject: string
  text: string
}

/**
 * A mail server’s stand-in: it speaks SMTP on this machine alone, takes every letter, and hands it to whoever keeps it; nothing
 * goes further. `slowMs` makes it as slow as some are.
 */
export async function mailStandIn(
  keep: (mail: Received) => PromiseLike<unknown>,
  { port = 0, slowMs = 0 } = {},
): Promise<{ url: string; stop: () => Promise<void> }> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: 100_000,
    onData: (stream, _session, done) => {
      simpleParser(stream)
        .then(async ({ to, subject, text }) => {
          await new Promise(resolve => setTimeout(resolve, slowMs))
          const [first] = to ? [to].flat() : []
          await keep({ to: first?.text ?? '', subject: subject ?? '', text: text ?? '' })
          done()
        })
        .catch(done)
    },
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => resolve())
  })
  const at = server.server.address()
  const listening = typeof at === 'object' && at ? at.port : port
  return {
    url: `smtp://127.0.0.1:${listening}`,
    stop: () => new Promise(resolve => server.close(() => resolve())),
  }
}
