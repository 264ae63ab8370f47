import * as z from 'zod'
import type { Mail } from '../accounts/mails'
import { mailQueue, sender } from '../queue/boss'

const mailSchema = z.strictObject({
  to: z.string().max(320),
  subject: z.string().max(200),
  text: z.string().max(8000),
})
export const readMail = (data: unknown): Mail => mailSchema.parse(data)

/**
 * Hands a letter to the workers: whoever asked for it does not wait for a mail server, nor learns from its slowness whether there
 * was anybody to write to. It is tried for half a day.
 */
export async function sendMail(mail: Mail): Promise<void> {
  await (await sender()).send(mailQueue, mail)
}
