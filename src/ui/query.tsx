'use client'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { type Answer, call } from './api'

type Refusal = Extract<Answer<unknown>, { ok: false }>

/** Why a request was not answered, as an error that the query client carries. */
export class Refused extends Error {
  constructor(readonly answer: Refusal) {
    super(answer.message)
  }
}

/** The data of an answer; what was refused is thrown as `Refused`. */
export async function dataOf<T>(answer: Promise<Answer<T>>): Promise<T> {
  const got = await answer
  if (!got.ok) throw new Refused(got)
  return got.data
}

/** What the server tells at an address, for a query. */
export const told = <T,>(path: string) => dataOf(call<T>(path, 'GET'))

const worthARetry = (times: number, error: Error) =>
  times < 2 && error instanceof Refused && (error.answer.status === 0 || error.answer.status >= 500)

export const newClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: { retry: worthARetry, retryDelay: n => 400 * 2 ** n, staleTime: 20_000 },
      mutations: { retry: false },
    },
  })

/** One client for all that the server knows beside the job itself. */
export function QueryRoot({ children }: { children: ReactNode }) {
  const [client] = useState(newClient)
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>
}
