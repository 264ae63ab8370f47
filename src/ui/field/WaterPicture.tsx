import { Alert, Box, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useMemo, useState } from 'react'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import type { Supply } from '@/core/isolation/house'
import type { WorkStand } from '@/core/order/stand'
import type { Window } from '@/core/order/task'
import { waterOf } from '@/core/order/water'
import { together } from '@/core/units/format'
import { Column, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

interface Props {
  window: Window
  windows: readonly Window[]
  stand: WorkStand
}

/** Two of one name are told once. */
const named = (list: readonly Supply[]) => together([...new Set(list.map(s => s.name))])

/** The one-line with what is live full of water and what is dead drained: as it is now, and as it is with the power off; and what a main alone would leave. */
export function WaterPicture({ window, windows, stand }: Props) {
  const job = useWorkspace(s => s.job)
  const [shown, setShown] = useState<'now' | 'off'>('off')
  const svg = useMemo(
    () => oneLineSvg(job, null, undefined, waterOf(job, windows, shown === 'off' ? [window.id] : stand.off)),
    [job, windows, window.id, shown, stand.off],
  )
  const { now, could } = window.mainsOnly
  return (
    <Column>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Which state is drawn"
        value={shown}
        onChange={(_, next: 'now' | 'off' | null) => next && setShown(next)}
      >
        <ToggleButton value="off">With the power off</ToggleButton>
        <ToggleButton value="now">As it stands now</ToggleButton>
      </ToggleButtonGroup>
      <Box
        sx={{ overflow: 'auto', '& svg': { width: 1, height: 'auto', minWidth: 300, display: 'block' } }}
        // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing; every text in it is escaped
        dangerouslySetInnerHTML={{ __html: svg }}
      />
      <Quiet>
        Full: live. Drained: dead by the model, which knows only what was entered. What is not marked is
        joined to nothing yet, or not known.
      </Quiet>
      {(now.length > 0 || could.length > 0) && (
        <Alert severity="warning">
          <b>“The main is off, so it is dead.”</b>{' '}
          {now.length > 0
            ? `Not here: ${named(now)} would still feed it.`
            : `Only until somebody moves one more handle: ${named(could)} could feed it.`}
        </Alert>
      )}
    </Column>
  )
}
