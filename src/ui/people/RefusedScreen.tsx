'use client'
import Link from 'next/link'
import { Empty, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'

export const RefusedScreen = ({ person, why }: { person: PersonChoice; why: string }) => (
  <>
    <TopBar person={person} />
    <Screen title="Not for your role">
      <Empty>
        <p>{why}</p>
        <Link href="/jobs">Back to the jobs</Link>
      </Empty>
    </Screen>
  </>
)
