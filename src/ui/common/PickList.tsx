import { List, ListItem, ListItemButton, ListItemText } from '@mui/material'
import type { ReactNode } from 'react'

interface Props<T> {
  label?: string
  items: readonly T[]
  idOf: (item: T) => string
  first: (item: T) => ReactNode
  second: (item: T) => ReactNode
  onPick: (item: T) => void
}

/** Things to choose from, each with its name and what it is. */
export const PickList = <T,>({ label, items, idOf, first, second, onPick }: Props<T>) => (
  <List disablePadding aria-label={label}>
    {items.map(item => (
      <ListItem key={idOf(item)} disablePadding divider>
        <ListItemButton disableGutters onClick={() => onPick(item)}>
          <ListItemText primary={first(item)} secondary={second(item)} />
        </ListItemButton>
      </ListItem>
    ))}
  </List>
)
