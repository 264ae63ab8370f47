'use client'
import { Box, Button } from '@mui/material'
import { Printer } from 'lucide-react'
import Link from 'next/link'
import type { ReactNode } from 'react'
import { Quiet, Row } from '../common/pieces'

interface Props {
  jobId: string
  /** the screen that it leads back to */
  back?: keyof typeof backWords
  /** what can be chosen of the paper */
  children?: ReactNode
  note?: ReactNode
}

const backWords = {
  panel: 'Back to the panel',
  work: 'Back to the work order',
  tests: 'Back to the tests',
  'hand-over': 'Back to the hand-over',
} as const

/** Above the paper on the screen only: the way back, what can be chosen, and the printer. */
export const PrintBar = ({ jobId, back = 'panel', children, note }: Props) => (
  <Box className="no-print" sx={{ maxWidth: '8.5in', mx: 'auto', px: 1, py: 1.5 }}>
    <Row sx={{ '& .MuiTextField-root': { width: 230 } }}>
      <Button component={Link} href={`/jobs/${jobId}/${back}`}>
        {backWords[back]}
      </Button>
      {children}
      <Button
        variant="contained"
        sx={{ ml: 'auto' }}
        startIcon={<Printer size={18} aria-hidden />}
        onClick={() => window.print()}
      >
        Print
      </Button>
    </Row>
    {note && <Quiet>{note}</Quiet>}
  </Box>
)
