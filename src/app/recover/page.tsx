import type { Metadata } from 'next'
import { Recover } from '@/ui/people/entries'

export const metadata: Metadata = { title: 'Set a new password' }

export default function RecoverPage() {
  return <Recover />
}
