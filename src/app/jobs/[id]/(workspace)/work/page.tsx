import { readWays } from '@/server/parts/repository'
import { WorkView } from '@/ui/field/WorkView'
import { type JobPageParams, loadJob } from '../../load'

export default async function WorkPage({ params }: JobPageParams) {
  const { actor } = await loadJob((await params).id)
  return <WorkView minutes={(await readWays(actor)).minutes} />
}
