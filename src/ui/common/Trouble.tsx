'use client'
import { Button } from '@mui/material'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { startTransition } from 'react'
import { Logo } from './Logo'
import { Column } from './pieces'

/** The screen could not be made: most often the database is away. Nothing saved is lost. */
export function Trouble({ onRetry }: { onRetry: () => void }) {
  const router = useRouter()
  const again = () =>
    startTransition(() => {
      router.refresh()
      onRetry()
    })
  return (
    <Column
      component="main"
      sx={{ maxWidth: 480, mx: 'auto', mt: '12vh', p: 3, alignItems: 'center', textAlign: 'center' }}
    >
      <Logo size={40} />
      <h1>This screen cannot be shown just now</h1>
      <p>The server or its database does not answer. Everything that was shown as saved is kept.</p>
      <Button variant="contained" onClick={again}>
        Try again
      </Button>
    </Column>
  )
}

export function Missing() {
  return (
    <Column
      component="main"
      sx={{ maxWidth: 480, mx: 'auto', mt: '12vh', p: 3, alignItems: 'center', textAlign: 'center' }}
    >
      <Logo size={40} />
      <h1>There is nothing at this address</h1>
      <p>The job may belong to another firm, or the link may be cut short.</p>
      <Link href="/jobs">All jobs</Link>
    </Column>
  )
}
