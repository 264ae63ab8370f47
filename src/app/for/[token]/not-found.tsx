import { LinkGone } from '@/ui/for/LinkGone'

export default function LinkNotFound() {
  return <LinkGone />
}
