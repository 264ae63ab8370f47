'use client'

import { inEveryEdition } from '@/core/articles'
import { checkCatalogue, families } from '@/core/checks/catalogue'
import { deference } from '@/core/deference'
import { plural } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Card, Screen } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import { type PersonChoice, TopBar } from '../common/TopBar'

/** Every check there is: what it looks at, how to make it speak, and the article in each edition of the Code. */
export function ChecksScreen({ person }: { person: PersonChoice }) {
  return (
    <>
      <TopBar person={person} />
      <Screen
        title="Checks"
        lead={`${plural(checkCatalogue.length, 'check')} look at every job, at every change. What is not listed here is not looked at. ${deference}`}
      >
        {families.map(family => (
          <Card key={family} title={family}>
            <DataTable
              label={family}
              rows={checkCatalogue.filter(c => c.family === family)}
              idOf={c => c.id}
              rowProps={c => ({ id: c.id, sx: { '&:target': { bgcolor: 'water.shallow' } } })}
              sx={{ tableLayout: 'fixed', minWidth: 760, '& td, & th': { overflowWrap: 'anywhere' } }}
              columns={[
                {
                  head: 'Check',
                  names: true,
                  cell: c => (
                    <>
                      <SeverityTag severity={c.severity} /> {c.id}
                    </>
                  ),
                },
                { head: 'Looks at', cell: c => c.looks },
                { head: 'To make it speak', cell: c => c.provoke },
                {
                  head: 'Article',
                  cell: ({ article = '' }) =>
                    inEveryEdition(article).map(line => <div key={line}>{line}</div>),
                },
              ]}
            />
          </Card>
        ))}
      </Screen>
    </>
  )
}
