import { Menu, MenuItem } from '@mui/material'
import { arrangementWays } from '@/core/assess/arrangement-ways'
import type { Job } from '@/core/job/schema'
import { arrangementNames } from '@/core/source/arrangement'
import { useWorkspace } from '../workspace/store'

interface Props {
  source: NonNullable<Job['source']>
  anchor: HTMLElement
  onClose: () => void
}

/** The arrangements that this source can be brought to as it stands, the present one marked. */
export function ArrangeMenu({ source, anchor, onClose }: Props) {
  const act = useWorkspace(s => s.act)
  const ways = arrangementWays(source, []).flatMap(({ arrangement, operation, brings }) => {
    if (!operation || brings.length) return []
    const legs = arrangement === 'one-leg' ? (['L1', 'L2'] as const) : [undefined]
    return legs.map(liveLeg => ({
      arrangement,
      operation: liveLeg ? { ...operation, liveLeg } : operation,
      liveLeg,
    }))
  })
  return (
    <Menu anchorEl={anchor} open onClose={onClose} slotProps={{ list: { 'aria-label': 'Arrangement' } }}>
      {ways.map(({ arrangement, operation, liveLeg }) => {
        const here = source.arrangement === arrangement && (!liveLeg || source.liveLeg === liveLeg)
        return (
          <MenuItem
            key={`${arrangement} ${liveLeg}`}
            role="menuitemradio"
            aria-checked={here}
            selected={here}
            onClick={() => {
              if (!here) act(operation)
              onClose()
            }}
          >
            {arrangementNames[arrangement]}
            {liveLeg && `, ${liveLeg} live`}
          </MenuItem>
        )
      })}
    </Menu>
  )
}
