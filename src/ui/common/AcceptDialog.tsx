import type { Finding } from '@/core/checks/finding'
import { acceptanceSchema } from '@/core/job/acceptance'
import { parseWith } from '@/core/outcome'
import { FormDialog } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { today } from './today'

/** A finding accepted by a named person for a reason: it stays listed, and prints. */
export function AcceptDialog({ finding, onClose }: { finding: Finding; onClose: () => void }) {
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  const sheet = useSheet({
    values: { by: person, reason: '' },
    read: ({ by, reason }) =>
      parseWith(acceptanceSchema, {
        key: finding.key,
        by,
        reason: reason.replace(/\n/g, ' '),
        on: today(),
      }),
    save: acceptance => act({ op: 'acceptFinding', acceptance }),
    done: onClose,
  })
  return (
    <FormDialog sheet={sheet} title="Accept this finding" save="Accept" onClose={onClose} maxWidth="sm">
      <p>{finding.sentence}</p>
      <LineField name="by" label="Accepted by" />
      <LineField
        name="reason"
        label="Reason"
        autoFocus
        lines={2}
        most={500}
        help="It stays listed and prints in the hand-over."
      />
    </FormDialog>
  )
}
