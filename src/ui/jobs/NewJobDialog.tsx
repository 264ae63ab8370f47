import { useQuery } from '@tanstack/react-query'
import { useRouter } from 'next/navigation'
import type { JobListRow } from '@/core/assess/record'
import { entryExamples } from '@/core/job/entry'
import { houseNames } from '@/core/job/house-names'
import { ok } from '@/core/outcome'
import { call } from '../api'
import { Columns, Quiet } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { told } from '../query'

const panelSizes = [4, 6, 8, 12, 16, 20, 24, 30, 32, 40, 42, 54, 60, 66, 72, 84]
const mains = [60, 100, 125, 150, 200, 225, 400]

const notKnown: { value: number | ''; label: string } = { value: '', label: 'not known yet' }

/** Opens a job with its name, place and panel. The server judges; what was typed stays. */
export function NewJobDialog({ template = '', onClose }: { template?: string; onClose: () => void }) {
  const router = useRouter()
  const templates = useQuery({
    queryKey: ['templates'],
    queryFn: () => told<{ rows: JobListRow[] }>('/api/jobs?templates=true&sort=title'),
  })
  const sheet = useSheet({
    values: {
      title: '',
      place: '',
      spaces: '' as number | '',
      mainA: '' as number | '',
      directory: '',
      template,
    },
    keep: `spillway.new-job ${template}`,
    read: typed => ok(typed),
    save: async ({ template, spaces, mainA, ...facts }) => {
      const answer = await call<{ id: string }>('/api/jobs', 'POST', {
        ...facts,
        ...(template && { template }),
        ...(spaces !== '' && { spaces }),
        ...(mainA !== '' && { mainA }),
      })
      if (!answer.ok)
        return answer.faults.length
          ? answer.faults
          : `${answer.message} What you typed stays here; try again.`
      router.push(`/jobs/${answer.data.id}/${facts.directory.trim() ? 'panel' : 'first'}`)
      return null
    },
  })
  return (
    <FormDialog sheet={sheet} title="New job" save="Open the job" onClose={onClose}>
      <LineField name="title" label="Name" autoFocus help="Call the customer by the place" />
      <LineField name="place" label="Place" help="What kind of house, where" />
      {(templates.data ?? !template) && (
        <ChoiceField
          name="template"
          label="Begin with"
          help="A kind of house: what must live, how long, the way of connecting"
          options={[
            { value: '', label: 'nothing yet' },
            ...houseNames.map(h => ({ value: h.id, label: h.name })),
            ...(templates.data?.rows ?? []).map(t => ({ value: t.id, label: t.title })),
          ]}
        />
      )}
      <Quiet>The panel, as far as it is known by now</Quiet>
      <Columns least={140}>
        <ChoiceField
          name="spaces"
          label="Panel"
          options={[notKnown, ...panelSizes.map(value => ({ value, label: `${value} spaces` }))]}
        />
        <ChoiceField
          name="mainA"
          label="Main"
          options={[notKnown, ...mains.map(value => ({ value, label: `${value} A` }))]}
        />
      </Columns>
      <LineField
        name="directory"
        label="Breakers, if you have their directory"
        lines={3}
        most={20_000}
        help="A line each, or a table pasted with its headings: more can follow on the panel"
        placeholder={entryExamples
          .slice(0, 2)
          .map(([line]) => line)
          .join('\n')}
      />
    </FormDialog>
  )
}
