import type { Load } from '@/core/loads/load'

/** What turns in a load, as it is asked. */
export const natures: { value: Load['nature']; label: string }[] = [
  { value: 'plain', label: 'no motor' },
  { value: 'motor', label: 'motor' },
  { value: 'compressor', label: 'compressor' },
]
