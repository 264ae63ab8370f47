'use client'
import {
  Box,
  type BoxProps,
  Container,
  Link,
  Paper,
  type PaperProps,
  Stack,
  type StackProps,
  Typography,
  type TypographyProps,
} from '@mui/material'
import { type ReactNode, useId } from 'react'

/** What is said beside the matter. */
export const Quiet = ({ component = 'p', ...props }: TypographyProps & { component?: React.ElementType }) => (
  <Typography variant="quiet" component={component} {...props} />
)

/** Things that follow each other down the screen. */
export const Column = (props: StackProps) => <Stack spacing={1.5} {...props} />

/** Things beside each other as far as there is room. */
export const Row = ({ sx, ...props }: StackProps) => (
  <Stack direction="row" spacing={1} sx={{ flexWrap: 'wrap', alignItems: 'center', ...sx }} {...props} />
)

/** Columns of one width, as many as fit. */
export const Columns = ({ least = 220, sx, ...props }: BoxProps & { least?: number }) => (
  <Box
    sx={{
      display: 'grid',
      gap: 1.5,
      alignItems: 'start',
      gridTemplateColumns: `repeat(auto-fit, minmax(min(100%, ${least}px), 1fr))`,
      ...sx,
    }}
    {...props}
  />
)

interface ViewProps {
  title: string
  /** said beside the title */
  lead?: ReactNode
  tools?: ReactNode
  children: ReactNode
}

/** A view of the work under its name. */
export const View = ({ title, lead, tools, children }: ViewProps) => (
  <Column sx={{ minWidth: 0 }}>
    <Row sx={{ columnGap: 2, alignItems: 'baseline' }}>
      <h1>{title}</h1>
      {lead && <Quiet sx={{ flex: '1 1 0', minWidth: 'min(100%, 240px)' }}>{lead}</Quiet>}
      {tools && (
        <Box className="no-print" sx={{ ml: 'auto' }}>
          {tools}
        </Box>
      )}
    </Row>
    {children}
  </Column>
)

/** A view outside any job: the whole width of a screen, within reason. */
export const Screen = (props: ViewProps) => (
  <Container component="main" maxWidth={false} sx={{ maxWidth: 1180, pt: 2, pb: 5 }}>
    <View {...props} />
  </Container>
)

interface CardProps extends Omit<PaperProps, 'title'> {
  /** also its name, where no other is given */
  title: ReactNode
  tools?: ReactNode
  level?: 2 | 3
}

/** A part of a view, with its heading, what can be done with it beside that, and its matter. */
export function Card({ title, tools, level = 2, children, sx, ...paper }: CardProps) {
  const id = useId()
  const Heading = level === 2 ? 'h2' : 'h3'
  return (
    <Paper
      component="section"
      variant="outlined"
      {...(typeof title === 'string' ? { 'aria-label': title } : { 'aria-labelledby': id })}
      sx={{ p: 1.5, minWidth: 0, contain: 'layout style', breakInside: 'avoid', ...sx }}
      {...paper}
    >
      <Row sx={{ mb: 0.75 }}>
        <Heading id={id} style={{ marginRight: 'auto' }}>
          {title}
        </Heading>
        {tools}
      </Row>
      <Column>{children}</Column>
    </Paper>
  )
}

interface FigureProps {
  children: ReactNode
  onClick: () => void
  label?: string
}

/** A figure that opens its working. */
export const FigureLink = ({ children, onClick, label }: FigureProps) => (
  <Link
    component="button"
    type="button"
    aria-haspopup="dialog"
    aria-label={label}
    onClick={onClick}
    sx={{
      font: 'inherit',
      fontWeight: 650,
      textAlign: 'left',
      color: 'primary.main',
      textDecorationStyle: 'dotted',
    }}
  >
    {children}
  </Link>
)

/** What is missing here, and what to do first. */
export const Empty = ({ children }: { children: ReactNode }) => (
  <Paper component="section" variant="outlined" sx={{ p: 3, borderStyle: 'dashed', '& > * + *': { mt: 1 } }}>
    {children}
  </Paper>
)

interface TermsProps {
  rows: readonly (readonly [term: string, said: ReactNode])[]
  /** px, of the terms */
  width?: number
}

/** Terms, and what is to be said of each. */
export const Terms = ({ rows, width = 96 }: TermsProps) => (
  <Box component="dl" sx={{ '& > div': { borderTop: 1, borderColor: 'divider', py: 0.5 } }}>
    {rows.map(([term, said]) => (
      <Box key={term} sx={{ display: 'grid', gridTemplateColumns: `${width}px 1fr`, gap: 1 }}>
        <dt>{term}</dt>
        <dd>{said}</dd>
      </Box>
    ))}
  </Box>
)
