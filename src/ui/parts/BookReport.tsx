import { Alert, List, ListItem } from '@mui/material'
import { plural } from '@/core/units/format'
import { faultLine } from '../api'
import { Refused } from '../query'
import type { useBook } from './useFirmParts'

const most = 20

/** What became of a price book that was read: how much was taken, and each row that was not, with why. */
export function BookReport({ book: { data, error } }: { book: ReturnType<typeof useBook> }) {
  if (error) {
    const faults = error instanceof Refused ? error.answer.faults : []
    return (
      <Alert severity="error">
        {error.message}
        <Rows lines={faults.map(faultLine)} />
      </Alert>
    )
  }
  if (!data) return null
  return (
    <Alert severity={data.faults.length ? 'warning' : 'success'}>
      {plural(data.taken, 'price')} taken over
      {data.older > 0 && `, ${data.older} left as they are: a newer price stands there`}
      {data.doubled > 0 && `, ${data.doubled} twice in the file: the newer one counts`}.
      {data.unknown.count > 0 && (
        <p>
          {plural(data.unknown.count, 'part')} of it stand on no list of Spillway’s, and are kept:{' '}
          {data.unknown.some.join(', ')}
          {data.unknown.count > data.unknown.some.length && ' …'}. The price book goes out with the keys of
          ours.
        </p>
      )}
      <Rows lines={data.faults.map(f => `Row ${f.row}, ${f.column}: ${f.message}`)} />
    </Alert>
  )
}

const Rows = ({ lines }: { lines: readonly string[] }) =>
  lines.length > 0 && (
    <List dense disablePadding aria-label="Rows that were not taken">
      {lines.slice(0, most).map(text => (
        <ListItem key={text} disableGutters>
          {text}
        </ListItem>
      ))}
      {lines.length > most && <ListItem disableGutters>and {lines.length - most} more</ListItem>}
    </List>
  )
