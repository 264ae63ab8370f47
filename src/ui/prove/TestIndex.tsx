import { Box, Chip, List, ListItem, ListItemButton, ListSubheader } from '@mui/material'
import { Check, Circle, CircleSlash, RotateCcw, TriangleAlert, X } from 'lucide-react'
import { memo } from 'react'
import type { TestStand } from '@/core/commission/stand'
import { groupKeys, groups, type Test } from '@/core/commission/tests'
import type { Tests } from './useTests'

export const stateMarks: Record<TestStand['state'], { icon: typeof Check; word: string; colour: string }> = {
  passed: { icon: Check, word: 'passed', colour: 'water.live' },
  doubtful: { icon: TriangleAlert, word: 'doubtful', colour: 'severity.fix' },
  failed: { icon: X, word: 'failed', colour: 'severity.stop' },
  'left out': { icon: CircleSlash, word: 'left out', colour: 'text.secondary' },
  again: { icon: RotateCcw, word: 'to be read again', colour: 'severity.fix' },
  open: { icon: Circle, word: 'open', colour: 'text.secondary' },
}

interface Props {
  tests: Tests
  currentId: string | null
  onChoose: (testId: string) => void
  /** opens the grid of circuits by supply */
  onMatrix: () => void
}

/** Every test by its group, with how it stands; the grid of circuits stands in one line. */
export function TestIndex({ tests: { list, stand }, currentId, onChoose, onMatrix }: Props) {
  return (
    <List component="ul" disablePadding aria-label="Tests">
      {groupKeys.map(group => {
        const here = list.tests.filter(t => t.group === group)
        const told = stand.groups.find(g => g.group === group)
        if (!here.length) return null
        return (
          <Box component="li" key={group} sx={{ listStyle: 'none' }}>
            <ListSubheader
              component="div"
              disableSticky
              sx={{ lineHeight: 2.2, fontWeight: 700, display: 'flex', gap: 1 }}
            >
              <span style={{ flex: 1 }}>{groups[group].name}</span>
              {told && (
                <span>
                  {told.passed} of {told.count}
                </span>
              )}
            </ListSubheader>
            {group === 'matrix' ? (
              <ListItem component="div" disablePadding divider>
                <ListItemButton onClick={onMatrix} sx={{ gap: 1, minHeight: 48 }}>
                  <span style={{ flex: 1 }}>Every circuit on the utility, off, on the source</span>
                  {told !== undefined && told.failed > 0 && (
                    <Chip size="small" color="error" label={`${told.failed} failed`} />
                  )}
                </ListItemButton>
              </ListItem>
            ) : (
              here.map(t => (
                <TestRow
                  key={t.id}
                  test={t}
                  state={stand.tests.get(t.id)?.state ?? 'open'}
                  simulated={stand.tests.get(t.id)?.read?.simulated === true}
                  current={t.id === currentId}
                  onChoose={onChoose}
                />
              ))
            )}
          </Box>
        )
      })}
    </List>
  )
}

interface RowProps {
  test: Test
  state: TestStand['state']
  simulated: boolean
  current: boolean
  onChoose: (testId: string) => void
}

/** Drawn anew only when its own test stands otherwise. */
const TestRow = memo(function TestRow({ test, state, simulated, current, onChoose }: RowProps) {
  const { icon: Mark, word, colour } = stateMarks[state]
  return (
    <ListItem component="div" disablePadding divider>
      <ListItemButton
        selected={current}
        aria-current={current ? 'step' : undefined}
        onClick={() => onChoose(test.id)}
        sx={{ gap: 1, minHeight: 48, alignItems: 'flex-start' }}
      >
        <Box component="span" sx={{ color: colour, display: 'inline-flex', flex: 'none' }}>
          <Mark size={20} aria-label={word} />
        </Box>
        <Box component="span" sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
          {test.text}
        </Box>
        {simulated && state !== 'open' && <Chip size="small" variant="outlined" label="simulated" />}
      </ListItemButton>
    </ListItem>
  )
})
