'use client'
import { Trouble } from '@/ui/common/Trouble'

export default function ErrorScreen({ reset }: { error: Error; reset: () => void }) {
  return <Trouble onRetry={reset} />
}
