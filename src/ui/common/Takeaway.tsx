import { Button } from '@mui/material'
import { FileDown, Printer } from 'lucide-react'

interface Props {
  /** where a file of that format lies */
  hrefOf: (format: string) => string
  formats: readonly string[]
}

/** What a view is taken along as: files, and paper. */
export const Takeaway = ({ hrefOf, formats }: Props) => (
  <>
    {formats.map(format => (
      <Button key={format} size="small" startIcon={<FileDown size={16} aria-hidden />} href={hrefOf(format)}>
        {format.toUpperCase()}
      </Button>
    ))}
    <Button size="small" startIcon={<Printer size={16} aria-hidden />} onClick={() => window.print()}>
      Print
    </Button>
  </>
)
