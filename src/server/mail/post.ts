import { createTransport } from 'nodemailer'
import type { Mail } from '../accounts/mails'
import { needed, setting } from '../env'

/** Gives a letter to the mail server that SPILLWAY_SMTP names; one that says nothing for so long, in ms, is given up for now. */
export async function post(mail: Mail, greetingMs = 10_000, silentMs = 20_000): Promise<void> {
  const transport = createTransport({
    url: needed('SPILLWAY_SMTP'),
    connectionTimeout: greetingMs,
    greetingTimeout: greetingMs,
    socketTimeout: silentMs,
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
