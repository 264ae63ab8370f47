import { answerSchema, answerSent, askedOfCustomer } from '@/core/assess/sent'
import { bodyAs, handle } from '@/server/http/handle'
import { askedIn, type LinkParams, linkOf, sender, take } from '../params'

/** What is asked by this link. */
export const GET = handle(async (request, { params }: LinkParams) => {
  const { job } = await linkOf(params)
  return { asked: askedOfCustomer(job, askedIn(request)) }
})

/** Takes in an answer: a nameplate, a few words, or that they do not know. */
export const POST = handle(async (request, { params }: LinkParams) => {
  const opened = await linkOf(params)
  const answer = await bodyAs(request, answerSchema)
  await take(opened, job => answerSent(job, answer, sender(opened)))
  const { job } = await linkOf(params)
  return { asked: askedOfCustomer(job, askedIn(request)) }
})
