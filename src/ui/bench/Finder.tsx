import { Box, List, ListItem, ListItemButton, ListSubheader, Stack, TextField } from '@mui/material'
import { Search } from 'lucide-react'
import { type KeyboardEvent, type MouseEvent, useRef, useState } from 'react'
import { type Topic, topics } from '@/core/calculator'
import { findCalculators } from '@/core/calculators'
import { useShortcut } from '../common/keys'

const topicNames: Record<Topic, string> = {
  wiring: 'Wire and connect',
  loads: 'Know the loads',
  source: 'Size the source',
  readings: 'Read the meter',
}

export const benchPath = (name: string) => `/bench/${name}`

interface Props {
  here: string | null
  onOpen: (name: string) => void
}

/** All questions of the bench; what is typed narrows them, arrow keys walk them, Enter opens one. */
export function Finder({ here, onOpen }: Props) {
  const [asked, setAsked] = useState('')
  const field = useRef<HTMLInputElement>(null)
  const list = useRef<HTMLElement>(null)
  const found = findCalculators(asked)
  const searching = asked.trim() !== ''
  const focusField = () => {
    field.current?.focus()
    field.current?.select()
  }
  useShortcut('find', focusField)
  useShortcut('findToo', focusField)

  const open = (name: string) => {
    setAsked('')
    onOpen(name)
  }
  const walk = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
    const links: (Element | null)[] = [...(list.current?.querySelectorAll('a') ?? [])]
    const at = links.indexOf(document.activeElement)
    const next = at + (event.key === 'ArrowDown' ? 1 : -1)
    event.preventDefault()
    if (next < 0) field.current?.focus()
    else list.current?.querySelectorAll('a')[next]?.focus()
  }
  const groups = searching
    ? [{ topic: 'found', name: found.length ? 'Nearest first' : 'Nothing answers that yet', list: found }]
    : topics.map(topic => ({ topic, name: topicNames[topic], list: found.filter(c => c.topic === topic) }))
  return (
    <Stack component="search" spacing={1} onKeyDown={walk}>
      <TextField
        inputRef={field}
        label="What do you want to know?"
        value={asked}
        onChange={e => setAsked(e.target.value)}
        onKeyDown={e => {
          const [first] = found
          if (e.key === 'Enter' && searching && first) open(first.name)
          if (e.key === 'Escape') setAsked('')
        }}
        slotProps={{
          input: { startAdornment: <Search size={18} aria-hidden />, endAdornment: <kbd>/</kbd> },
          htmlInput: { maxLength: 100, autoComplete: 'off' },
        }}
      />
      <Box component="nav" ref={list} aria-label="Questions">
        {groups.map(g => (
          <List
            key={g.topic}
            dense
            disablePadding
            subheader={
              <ListSubheader disableSticky>
                <h2 style={{ font: 'inherit' }}>{g.name}</h2>
              </ListSubheader>
            }
          >
            {g.list.map(c => (
              <ListItem key={c.name} disablePadding>
                <ListItemButton
                  component="a"
                  href={benchPath(c.name)}
                  selected={c.name === here}
                  aria-current={c.name === here ? 'page' : undefined}
                  sx={{ px: 1, py: { xs: 1.25, md: 0.25 }, borderRadius: 1 }}
                  onClick={(e: MouseEvent) => {
                    if (e.ctrlKey || e.metaKey || e.shiftKey) return
                    e.preventDefault()
                    open(c.name)
                  }}
                >
                  {c.question}
                </ListItemButton>
              </ListItem>
            ))}
          </List>
        ))}
      </Box>
    </Stack>
  )
}
