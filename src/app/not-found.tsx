import { Missing } from '@/ui/common/Trouble'

export default function NotFound() {
  return <Missing />
}
