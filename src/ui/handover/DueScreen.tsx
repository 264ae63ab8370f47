'use client'
import { Button, Chip, List, ListItem, ListItemText, Pagination, PaginationItem } from '@mui/material'
import { CalendarDays } from 'lucide-react'
import Link from 'next/link'
import type { Due } from '@/core/handover/due'
import { Empty, Row, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'

interface Props {
  person: PersonChoice
  houses: { id: string; title: string; place: string; due: Due[] }[]
  page: number
  pages: number
  today: string
}

/** What is due across jobs: the yearly test, warranties that end, visits that stand open; the next first. */
export function DueScreen({ person, houses, page, pages, today }: Props) {
  return (
    <>
      <TopBar person={person} />
      <Screen title="What is due">
        {!houses.length && (
          <Empty>
            <p>Nothing is due. Houses come here once they are handed over, or a visit is written down.</p>
          </Empty>
        )}
        <List aria-label="Houses of which something is due">
          {houses.map(h => (
            <ListItem key={h.id} divider alignItems="flex-start">
              <ListItemText
                sx={{ overflowWrap: 'anywhere' }}
                primary={
                  <Link href={`/jobs/${h.id}/hand-over`}>
                    <b>{h.title}</b>
                  </Link>
                }
                secondary={
                  <>
                    {h.place && <span>{h.place}</span>}
                    <Row component="span" sx={{ pt: 0.5 }}>
                      {h.due.map(d => (
                        <Chip
                          key={`${d.what} ${d.on} ${d.text}`}
                          component="span"
                          size="small"
                          color={d.on < today ? 'error' : 'default'}
                          variant={d.on < today ? 'filled' : 'outlined'}
                          label={`${d.on}: ${d.text}${d.on < today ? ', overdue' : ''}`}
                        />
                      ))}
                    </Row>
                  </>
                }
                slotProps={{ secondary: { component: 'div' } }}
              />
              <Button
                size="small"
                component="a"
                href={`/api/jobs/${h.id}/calendar`}
                startIcon={<CalendarDays size={16} aria-hidden />}
                aria-label={`Calendar file of ${h.title}`}
              >
                Calendar
              </Button>
            </ListItem>
          ))}
        </List>
        {pages > 1 && (
          <Pagination
            page={page}
            count={pages}
            renderItem={item => <PaginationItem component={Link} href={`/due?page=${item.page}`} {...item} />}
          />
        )}
      </Screen>
    </>
  )
}
