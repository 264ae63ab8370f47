import { Alert, Button, List, ListItem, ListItemText, Typography } from '@mui/material'
import type { ChangeTold } from '@/core/assess/plan-told'
import { Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** What is going to be done, in the order in which it can be done, each with its reason and its way back. */
export function ChangeList({ changes }: { changes: readonly ChangeTold[] }) {
  const all = useWorkspace(s => s.evaluation.plan)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const back = ({ id, text }: ChangeTold) => {
    const [fault] = act({ op: 'dropChanges', ids: [id] })
    say(
      fault
        ? `Still planned: the plan ${fault.message}.`
        : `No longer planned: ${text}. Undo brings it back.`,
    )
  }
  return (
    <List dense disablePadding component="ol">
      {changes.map(change => (
        <ListItem key={change.id} divider disableGutters alignItems="flex-start" sx={{ gap: 1 }}>
          <Typography
            component="span"
            aria-hidden
            sx={{ minWidth: 24, fontWeight: 750, textAlign: 'center' }}
          >
            {change.sign}
          </Typography>
          <ListItemText
            disableTypography
            primary={change.text}
            secondary={
              <>
                <Quiet>{reasonOf(change, all)}</Quiet>
                {change.hindered !== null && (
                  <Alert severity="warning" sx={{ mt: 0.5 }}>
                    This house does not bear it: {change.hindered}. Plan it otherwise, or take it back.
                  </Alert>
                )}
              </>
            }
          />
          {change.origin !== 'hook-up' && !change.built && (
            <Button
              size="small"
              sx={{ flexShrink: 0 }}
              aria-label={`Take back: ${change.text}`}
              onClick={() => back(change)}
            >
              Take back
            </Button>
          )}
        </ListItem>
      ))}
    </List>
  )
}

const origins = {
  design: 'came with the design that was taken up',
  person: 'planned',
} as const

function reasonOf(
  { origin, settles, by, on, built, restsOn }: ChangeTold,
  all: readonly ChangeTold[],
): string {
  // what the hook-up asks for stands in its order
  const ahead = origin === 'hook-up' ? [] : restsOn.flatMap(id => all.find(c => c.id === id)?.text ?? [])
  return [
    ...(origin === 'hook-up'
      ? []
      : [origin === 'finding' ? `for ${settles?.split('|')[0] ?? 'a finding'}` : origins[origin]]),
    ...(by ? [`${by}${on ? `, ${on}` : ''}`] : []),
    ...(ahead.length ? [`after: ${ahead.join('; ')}`] : []),
    ...(built
      ? [`done by ${built.by}, ${built.on}${built.otherwise ? `, otherwise: ${built.otherwise}` : ''}`]
      : []),
  ].join(' · ')
}
