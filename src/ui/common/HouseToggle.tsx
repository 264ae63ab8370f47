import { ToggleButton, ToggleButtonGroup } from '@mui/material'
import type { House } from '@/core/job/as-planned'

export const houseNames = { found: 'As found', planned: 'As planned' } as const satisfies Record<
  House,
  string
>

/** Which picture of the house is shown. */
export const HouseToggle = ({ value, onChange }: { value: House; onChange: (house: House) => void }) => (
  <ToggleButtonGroup
    exclusive
    size="small"
    aria-label="The house"
    value={value}
    onChange={(_, next: House | null) => next && onChange(next)}
  >
    <ToggleButton value="found">{houseNames.found}</ToggleButton>
    <ToggleButton value="planned">{houseNames.planned}</ToggleButton>
  </ToggleButtonGroup>
)
