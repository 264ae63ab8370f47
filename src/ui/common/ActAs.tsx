import { ListSubheader, Menu, MenuItem } from '@mui/material'
import { useRouter } from 'next/navigation'
import { call } from '../api'

interface Props {
  person: { label: string; firm: string; people: { personId: string; label: string }[] }
  anchor: HTMLElement
  onClose: () => void
}

/** The people of the firm: whoever is chosen acts from now on. */
export function ActAs({ person, anchor, onClose }: Props) {
  const router = useRouter()
  const actAs = async (personId: string) => {
    onClose()
    await call('/api/person', 'POST', { personId })
    router.refresh()
  }
  return (
    <Menu anchorEl={anchor} open onClose={onClose}>
      <ListSubheader>{person.firm}: act as</ListSubheader>
      {person.people.map(p => (
        <MenuItem key={p.personId} selected={p.label === person.label} onClick={() => actAs(p.personId)}>
          {p.label}
        </MenuItem>
      ))}
    </Menu>
  )
}
