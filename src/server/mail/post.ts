import { createTransport } from 'nodemailer'
import type { Mail } from '../accounts/mails'
import { needed, setting } from '../env'

/** Gives a letter to the mail server that SPILLWAY_SMTP names, within twenty seconds. */
export async function post(mail: Mail): Promise<void> {
  const transport = createTransport({
    url: needed('SPILLWAY_SMTP'),
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 20_000,
    disableFileAccess: true,
    disableUrlAccess: true,
  })
  try {
    await transport.sendMail({
      from: setting('SPILLWAY_MAIL_FROM') ?? 'Spillway <no-reply@localhost>',
      ...mail,
    })
  } finally {
    transport.close()
  }
}
