import { Box, Button } from '@mui/material'
import { type Fault, ok } from '@/core/outcome'
import { Form } from './Form'
import { LineField } from './inputs'
import { useSheet } from './useSheet'

interface Props {
  label: string
  help?: string
  most: number
  /** a line that is not empty */
  onAdd: (text: string) => readonly Fault[]
}

/** One more line for a list; what was refused stays to be mended. */
export function AddLine({ label, help, most, onAdd }: Props) {
  const sheet = useSheet({
    values: { line: '' },
    read: ({ line }) => ok(line.trim()),
    save: text => (text ? onAdd(text).map(f => ({ ...f, path: 'line' })) : []),
    done: () => sheet.form.reset({ line: '' }),
  })
  return (
    <Form sheet={sheet}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'start' }}>
        <LineField name="line" label={label} help={help} most={most} />
        <Button type="submit" variant="outlined">
          Add
        </Button>
      </Box>
    </Form>
  )
}
