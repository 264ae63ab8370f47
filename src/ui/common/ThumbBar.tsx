import { Paper } from '@mui/material'

/** The bar under the thumb of a screen in the field: where to go from here. */
export const ThumbBar = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <Paper
    square
    elevation={4}
    component="nav"
    aria-label={label}
    sx={{
      position: 'fixed',
      inset: 'auto 0 0',
      p: 1,
      display: 'flex',
      gap: 1,
      zIndex: 5,
      '& .MuiButton-root': { minHeight: 56, flex: 1 },
    }}
  >
    {children}
  </Paper>
)
