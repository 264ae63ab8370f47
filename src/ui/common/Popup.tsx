import { Button, Dialog, DialogActions, DialogContent, type DialogProps, DialogTitle } from '@mui/material'
import { type ReactNode, useId } from 'react'
import { Column } from './pieces'

interface Props extends Omit<DialogProps, 'open' | 'title' | 'onClose'> {
  title: ReactNode
  /** buttons beside the one that closes */
  actions?: ReactNode
  /** the word on the button that closes; null: none */
  close?: string | null
  onClose?: () => void
  /** the button that sends the form around all of it */
  send?: ReactNode
  form?: (inside: ReactNode) => ReactNode
}

/** A dialog: its title, its matter one under the other, and what can be done. */
export function Popup({
  title,
  actions,
  close = 'Cancel',
  onClose,
  send,
  form = inside => inside,
  children,
  ...dialog
}: Props) {
  const id = useId()
  return (
    <Dialog open fullWidth maxWidth="sm" aria-labelledby={id} {...dialog} {...(onClose && { onClose })}>
      {form(
        <>
          <DialogTitle id={id}>{title}</DialogTitle>
          <DialogContent>
            <Column>{children}</Column>
          </DialogContent>
          {(actions || send || close !== null) && (
            <DialogActions>
              {actions}
              {close !== null && <Button onClick={onClose}>{close}</Button>}
              {send}
            </DialogActions>
          )}
        </>,
      )}
    </Dialog>
  )
}
