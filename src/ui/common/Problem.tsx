import { Alert, type AlertProps } from '@mui/material'

/** What went wrong, told at once; nothing where nothing did. */
export const Problem = ({ children, ...alert }: AlertProps) =>
  (Array.isArray(children) ? children.some(Boolean) : children) ? (
    <Alert severity="error" role="alert" {...alert}>
      {children}
    </Alert>
  ) : null
