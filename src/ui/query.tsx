'use client'
import { QueryClient, QueryClientContext, QueryClientProvider } from '@tanstack/react-query'
import { type ReactNode, useContext, useState } from 'react'
import { call, type Reply } from './api'

type Refusal = Extract<Reply<unknown>, { ok: false }>

/** Why a request was not answered, as an error that the query client carries. */
export class Refused extends Error {
  constructor(readonly answer: Refusal) {
    super(answer.message)
  }
}

/** The data of an answer; what was refused is thrown as `Refused`. */
export async function dataOf<T>(answer: Promise<Reply<T>>): Promise<T> {
  const got = await answer
  if (!got.ok) throw new Refused(got)
  return got.data
}

/** What the server tells at an address, for a query. */
export const told = <T,>(path: string) => dataOf(call<T>(path, 'GET'))

/** Twice more, where it may be the connection or the server's moment. */
export const worthARetry = (times: number, error: Error) =>
  times < 2 && error instanceof Refused && (error.answer.status === 0 || error.answer.status >= 500)

const retryDelay = (times: number) => 400 * 2 ** times

export const newClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: { retry: worthARetry, retryDelay, staleTime: 20_000 },
      mutations: { retry: false, retryDelay },
    },
  })

let ofBrowser: QueryClient | undefined
/** A browser has one; on the server every request has its own. */
function clientHere(): QueryClient {
  if (typeof window === 'undefined') return newClient()
  ofBrowser ??= newClient()
  return ofBrowser
}

interface Props {
  children: ReactNode
  client?: QueryClient
}

/** The one client for all that the server knows beside the job itself, around whatever asks it; one further out counts. */
export function QueryRoot({ children, client }: Props) {
  const above = useContext(QueryClientContext)
  const [here] = useState(() => above ?? client ?? clientHere())
  return <QueryClientProvider client={here}>{children}</QueryClientProvider>
}
