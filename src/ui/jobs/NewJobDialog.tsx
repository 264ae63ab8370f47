'use client'
import { useRouter } from 'next/navigation'
import { ok } from '@/core/outcome'
import { entryExamples } from '@/core/panel/entry'
import { call } from '../api'
import { Columns } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'

const panelSizes = [4, 6, 8, 12, 16, 20, 24, 30, 32, 40, 42, 54, 60, 66, 72, 84]
const mains = [60, 100, 125, 150, 200, 225, 400]

/** Opens a job with its name, place and panel. The server judges; what was typed stays. */
export function NewJobDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter()
  const sheet = useSheet({
    values: { title: '', place: '', spaces: 30, mainA: 200, directory: '' },
    keep: 'spillway.new-job',
    read: typed => ok(typed),
    save: async facts => {
      const answer = await call<{ id: string }>('/api/jobs', 'POST', facts)
      if (!answer.ok)
        return answer.faults.length
          ? answer.faults
          : `${answer.message} What you typed stays here; try again.`
      router.push(`/jobs/${answer.data.id}/${facts.directory.trim() ? 'panel' : 'ask'}`)
      return null
    },
  })
  return (
    <FormDialog sheet={sheet} title="New job" save="Open the job" onClose={onClose}>
      <LineField name="title" label="Name" autoFocus help="Call the customer by the place" />
      <LineField name="place" label="Place" help="What kind of house, where" />
      <Columns least={140}>
        <ChoiceField
          name="spaces"
          label="Panel"
          options={panelSizes.map(value => ({ value, label: `${value} spaces` }))}
        />
        <ChoiceField
          name="mainA"
          label="Main"
          options={mains.map(value => ({ value, label: `${value} A` }))}
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
