import { Container, Paper } from '@mui/material'
import Link from 'next/link'
import type { ReactNode } from 'react'
import type { FieldValues } from 'react-hook-form'
import { call } from '../api'
import { Logo } from '../common/Logo'
import { Column, Quiet, Row } from '../common/pieces'
import { Form, OtherFaults, Save } from '../form/Form'
import { type Said, useSheet } from '../form/useSheet'

/** A page for who is not in yet: the name of the house, one matter, and where else to go. */
export const EntryPage = ({
  title,
  children,
  ways,
}: {
  title: string
  children: ReactNode
  ways?: ReactNode
}) => (
  <Container component="main" maxWidth={false} sx={{ maxWidth: 460, pt: { xs: 3, sm: 8 }, pb: 5 }}>
    <Column spacing={2}>
      <Row>
        <Logo />
        <b>Spillway</b>
      </Row>
      <Paper variant="outlined" sx={{ p: { xs: 2, sm: 3 } }}>
        <Column spacing={2}>
          <h1>{title}</h1>
          <noscript>
            Spillway works by scripts: allow them for this address, then load the page again.
          </noscript>
          {children}
        </Column>
      </Paper>
      {ways && <Row sx={{ columnGap: 3 }}>{ways}</Row>}
    </Column>
  </Container>
)

export const Way = ({ href, children }: { href: string; children: ReactNode }) => (
  <Link href={href} prefetch={false}>
    {children}
  </Link>
)

/** Sends a form to a door of the house: nothing where it was taken, else what is wrong and where. */
export async function sent<T>(path: string, body: object, then: (data: T) => unknown): Promise<Said> {
  const reply = await call<T>(path, 'POST', body)
  if (!reply.ok) return reply.faults.length ? reply.faults : reply.message
  await then(reply.data)
  return null
}

interface FormProps<V extends FieldValues> {
  label: string
  values: V
  /** the word on the button */
  save: string
  onSend: (values: V) => Promise<Said>
  children: ReactNode
}

/** A short form whose door says itself what is wrong; what was typed stays. */
export function PlainForm<V extends FieldValues>({ label, values, save, onSend, children }: FormProps<V>) {
  const sheet = useSheet<V, V>({ values, read: value => ({ ok: true, value }), save: onSend })
  return (
    <Form sheet={sheet} label={label}>
      {children}
      <OtherFaults />
      <Save>{save}</Save>
    </Form>
  )
}

export const passwordHelp = '10 letters or more; four words that nobody would put together do well'

/** What was done, in place of the form that did it. */
export const Sent = ({ children }: { children: ReactNode }) => <Quiet role="status">{children}</Quiet>
