import { Accordion, AccordionDetails, AccordionSummary } from '@mui/material'
import { ChevronDown } from 'lucide-react'
import { type ReactNode, useState } from 'react'

interface FoldProps {
  title: ReactNode
  /** made only while it is open: what nobody looks at costs nothing */
  children: () => ReactNode
  /** open at first */
  open?: boolean
}

/** What is opened by who wants to know more. */
export function Fold({ title, children, open: first = false }: FoldProps) {
  const [open, setOpen] = useState(first)
  return (
    <Accordion disableGutters elevation={0} square expanded={open} onChange={(_, next) => setOpen(next)}>
      <AccordionSummary expandIcon={<ChevronDown size={18} aria-hidden />}>{title}</AccordionSummary>
      <AccordionDetails>{open && children()}</AccordionDetails>
    </Accordion>
  )
}
