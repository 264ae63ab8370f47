import { IconButton, type IconButtonProps } from '@mui/material'
import type { LucideIcon } from 'lucide-react'

interface Props extends IconButtonProps {
  /** its name for those who do not see the sign */
  label: string
  icon: LucideIcon
}

/** A button that is a sign. */
export const Tool = ({ label, icon: Sign, ...button }: Props) => (
  <IconButton aria-label={label} {...button}>
    <Sign size={18} aria-hidden />
  </IconButton>
)
