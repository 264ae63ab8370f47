import { Button } from '@mui/material'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { Row } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** Circuit by circuit, or the whole house by its utility; beside them the library. */
export function LoadsTabs() {
  const id = useWorkspace(s => s.id)
  const path = usePathname()
  const tabs = [
    [`/jobs/${id}/loads`, 'By circuit'],
    [`/jobs/${id}/loads/utility`, 'Utility data'],
    ['/loads', 'Library'],
  ] as const
  return (
    <Row component="nav" aria-label="Loads" spacing={0.5}>
      {tabs.map(([href, label]) => (
        <Button
          key={href}
          component={Link}
          href={href}
          prefetch={false}
          color="inherit"
          aria-current={path === href ? 'page' : undefined}
        >
          {label}
        </Button>
      ))}
    </Row>
  )
}
