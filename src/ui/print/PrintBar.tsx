'use client'
import Button from '@mui/material/Button'
import { Printer } from 'lucide-react'
import Link from 'next/link'
import styles from './PrintBar.module.css'

/** Above the sheet on the screen only. */
export function PrintBar({ jobId }: { jobId: string }) {
  return (
    <div className={`${styles.bar} no-print`}>
      <Link href={`/jobs/${jobId}/panel`}>Back to the job</Link>
      <Button
        variant="contained"
        startIcon={<Printer size={18} aria-hidden />}
        onClick={() => window.print()}
      >
        Print this page
      </Button>
    </div>
  )
}
