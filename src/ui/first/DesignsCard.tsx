import { Alert, Box, Button, LinearProgress } from '@mui/material'
import { designsText, type FirstDesigns, firstDraws } from '@/core/first/designs-text'
import { outOf100 } from '@/core/outage/words'
import { quantity } from '@/core/units/format'
import { Card, Column, Quiet, Row } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

interface Props {
  found: FirstDesigns | null
  busy: boolean
  trouble: string | null
}

/** Two or three designs of the catalogue that may do, side by side; one press takes one up. */
export function DesignsCard({ found, busy, trouble }: Props) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const hours = useWorkspace(s => s.job.outage.hours)
  return (
    <Card title="Designs that may do" sx={{ order: 3 }}>
      <Box sx={{ height: 4 }}>{busy && <LinearProgress aria-label="Looking for designs" />}</Box>
      {trouble && <Alert severity="error">{trouble}</Alert>}
      {found && designsText(found) && <p>{designsText(found)}</p>}
      <Column component="ul" sx={{ p: 0, m: 0, listStyle: 'none' }} spacing={1}>
        {found?.designs.map(d => (
          <Box component="li" key={d.name} sx={{ borderTop: 1, borderColor: 'divider', pt: 1 }}>
            <b>{d.name}</b>
            <Row sx={{ columnGap: 2 }}>
              <span>
                {quantity(d.price.low, '$')} to {quantity(d.price.high, '$')}
              </span>
              <span>{quantity(d.weightLb, 'lb')}</span>
              <span>
                lasts {quantity(hours, 'h')} in about {outOf100(d.chance)} of 100
              </span>
            </Row>
            <Row sx={{ justifyContent: 'space-between' }}>
              <Quiet component="span">
                {d.why}
                {d.overBudget && '; above what they named as the most'}
              </Quiet>
              <Button
                size="small"
                onClick={() => {
                  const [fault] = act(d.take)
                  say(
                    fault
                      ? `Not taken: ${fault.message}`
                      : 'Taken as the design: Source and Hook-up have it.',
                  )
                }}
              >
                Take as the design
              </Button>
            </Row>
          </Box>
        ))}
      </Column>
      {found && found.designs.length > 0 && (
        <Quiet>
          Devices, small parts and hours at their least and most, before mark-up and tax; the dearer end with
          a tenth for what nobody has seen. How often each lasts is of {firstDraws} simulated outages; an
          estimate counts more of them.
        </Quiet>
      )}
    </Card>
  )
}
