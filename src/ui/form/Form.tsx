import { Button, type DialogProps, Stack } from '@mui/material'
import { type ReactNode, useContext, useId, useState } from 'react'
import { type FieldValues, FormProvider, useFormState } from 'react-hook-form'
import { useAwake } from '../common/awake'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { FormId, messageOf, Standing } from './useField'
import type { Sheet } from './useSheet'

interface Props<V extends FieldValues> {
  sheet: Sheet<V>
  label?: string
  children: ReactNode
}

/** The form itself; Enter in any of its lines sends it. */
export function Form<V extends FieldValues>({ sheet, label, children }: Props<V>) {
  const [standing] = useState(() => new Map<string, string>())
  const id = useId()
  return (
    <FormProvider {...sheet.form}>
      <FormId.Provider value={id}>
        <Standing.Provider value={standing}>
          <form
            // no line of it ever stands in an address
            method="post"
            noValidate
            aria-label={label}
            style={{ display: 'flex', flexDirection: 'column', gap: 12, minHeight: 0 }}
            onSubmit={event => {
              event.preventDefault()
              // a form in a dialog is not part of the one behind it
              event.stopPropagation()
              void sheet.submit()
            }}
          >
            {children}
          </form>
        </Standing.Provider>
      </FormId.Provider>
    </FormProvider>
  )
}

/** What is wrong and has no field of its own here, and which fields are to be put right. */
export function OtherFaults() {
  const { errors } = useFormState()
  const standing = [...(useContext(Standing) ?? [])]
  const all = leaves(errors, '')
  const at = (path: string) => standing.find(([name]) => path === name || path.startsWith(`${name}.`))
  const amiss = [...new Set(all.flatMap(([path]) => at(path)?.[1] ?? []))].filter(Boolean)
  const others = all.filter(([path]) => !at(path))
  if (!all.length) return null
  return (
    <Problem>
      {others.map(([path, message]) => (
        <p key={path}>
          {path === 'root' ? '' : `${path.split('.').at(-1)} `}
          {message}
        </p>
      ))}
      {amiss.length > 0 && <p>To put right: {amiss.join(', ')}.</p>}
    </Problem>
  )
}

function leaves(errors: object, at: string): [string, string][] {
  return Object.entries(errors).flatMap(([key, inner]): [string, string][] => {
    const path = at ? `${at}.${key}` : key
    if (key === 'ref' || inner === null || typeof inner !== 'object') return []
    return 'message' in inner && typeof inner.message === 'string'
      ? [[path, messageOf(inner) ?? '']]
      : leaves(inner, path)
  })
}

interface DialogueProps<V extends FieldValues> extends Props<V> {
  title: ReactNode
  /** the word on the button that saves */
  save: string
  onClose: () => void
  maxWidth?: DialogProps['maxWidth']
  /** beside cancel and save, to the left */
  extra?: ReactNode
}

/** A form in a dialog: its fields, what is wrong, cancel and save. */
export function FormDialog<V extends FieldValues>({
  sheet,
  title,
  save,
  onClose,
  maxWidth = 'xs',
  extra,
  children,
}: DialogueProps<V>) {
  return (
    <Popup
      title={title}
      onClose={onClose}
      maxWidth={maxWidth}
      actions={extra && <Stack sx={{ mr: 'auto' }}>{extra}</Stack>}
      send={<Save>{save}</Save>}
      form={inside => <Form sheet={sheet}>{inside}</Form>}
    >
      {children}
      <OtherFaults />
    </Popup>
  )
}

/** Sends the form around it; busy while that takes, and until it can be sent as it should: Enter in a line does nothing before. */
export function Save({ children }: { children: ReactNode }) {
  const { isSubmitting } = useFormState()
  const awake = useAwake()
  return (
    <Button type="submit" variant="contained" loading={isSubmitting} disabled={!awake}>
      {children}
    </Button>
  )
}
