import type { Metadata } from 'next'
import { calculators } from '@/core/calculators'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { Bench } from '@/ui/bench/Bench'
import { givenIn } from './given'

interface Props {
  params: Promise<{ name?: string[] }>
  searchParams: Promise<Record<string, string | string[] | undefined>>
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const [name] = (await params).name ?? []
  return { title: calculators.find(c => c.name === name)?.question ?? 'Bench' }
}

export default async function BenchPage({ searchParams }: Props) {
  const asked = await searchParams
  const { actor, given } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, given: await givenIn(actor, asked) }
  })
  return <Bench person={actor.person} {...given} />
}
