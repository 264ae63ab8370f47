import { Checkbox, FormControlLabel } from '@mui/material'

interface Props {
  label: string
  checked: boolean
  onChange: (checked: boolean) => void
  id?: string
}

/** Yes or no, said beside its box. */
export const Check = ({ label, checked, onChange, id }: Props) => (
  <FormControlLabel
    label={label}
    control={<Checkbox id={id} checked={checked} onChange={e => onChange(e.target.checked)} />}
  />
)
