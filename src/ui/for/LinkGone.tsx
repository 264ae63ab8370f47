import { Container } from '@mui/material'
import type { ReactNode } from 'react'
import type { Language } from '@/core/languages'
import { Column } from '../common/pieces'
import { text } from '../theme/tokens'

/** A page for someone without any account, on a phone: one column, large type. */
export const ForCustomer = ({ language, children }: { language?: Language; children: ReactNode }) => (
  <Container
    component="main"
    lang={language}
    disableGutters
    sx={{ maxWidth: '620px !important', px: 2, py: 2, fontSize: text.lead }}
  >
    <Column>{children}</Column>
  </Container>
)

/** A link that is unknown, expired or withdrawn: which of them is not told. */
export const LinkGone = () => (
  <ForCustomer>
    <h1>This link is no longer valid</h1>
    <p>It may have expired, or the installer took it back. Nothing you sent is lost.</p>
    <p>Ask the installer for a new one.</p>
  </ForCustomer>
)
