import { notFound } from 'next/navigation'
import { evaluate } from '@/core/assess/evaluate'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { warmUp } from '@/server/web/warm'
import { isWarming } from '@/server/web/warming'
import { PanelView } from '@/ui/panel/PanelView'
import { Workspace } from '@/ui/workspace/Workspace'

export const dynamic = 'force-dynamic'

const record = { id: 'warm', job: alderHollow, revision: 1, undos: [], redos: [], archived: false }
const person = {
  id: '',
  label: '',
  firm: '',
  zone: 'UTC',
  role: 'reader',
  authority: '',
  units: 'imperial',
  demo: false,
} as const

/** Asked by a web process of itself before it listens to anybody, so that what most people ask for is compiled then; there for nobody else. */
export default function WarmPage() {
  if (!isWarming()) notFound()
  warmUp()
  return (
    <Workspace record={record} evaluation={evaluate(record.job)} person={person}>
      <PanelView />
    </Workspace>
  )
}
