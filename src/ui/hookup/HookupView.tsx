'use client'
import type { Equipment } from '@/core/equipment'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'
import { type Hours, MethodsTable } from './MethodsTable'
import { PathBuilder } from './PathBuilder'
import { PlannedCard } from './PlannedCard'
import { PositionsDesk } from './PositionsDesk'
import { RunsCard } from './RunsCard'

/** How the source meets the house: methods side by side, then the one that is planned in all its parts. */
export function HookupView({ catalogue, hours }: { catalogue: Equipment[]; hours: Hours }) {
  const grounding = useWorkspace(s => s.evaluation.grounding)
  return (
    <div className={styles.view}>
      <h1>Hook-up</h1>
      <MethodsTable catalogue={catalogue} hours={hours} />
      <div className={styles.pair}>
        <PlannedCard catalogue={catalogue} />
        <section className={styles.card} aria-label="Neutral and ground" id="bonding">
          <h2>Neutral and ground</h2>
          <p>{grounding.text}</p>
          {grounding.unknown.length > 0 && (
            <p role="note">Not stated, and it decides the count: {grounding.unknown.join('; ')}.</p>
          )}
          <ul className={styles.bonds} aria-label="What is joined by its neutral while the source runs">
            {grounding.systems.map(s => (
              <li key={s.map(n => n.name).join()} data-bonds={s.filter(n => n.bonded).length}>
                {s.map((n, at) => (
                  <span key={n.name}>
                    {at > 0 && <i aria-hidden> — </i>}
                    {n.name}
                    {n.bonded && <b title="neutral and ground joined here"> N–G</b>}
                  </span>
                ))}
              </li>
            ))}
          </ul>
          <p className={styles.quiet}>
            Exactly one bond while the source runs (NEC 250.24, 250.30). The equipment ground is never
            switched.
          </p>
        </section>
      </div>
      <PathBuilder catalogue={catalogue} />
      <PositionsDesk />
      <RunsCard />
      <FindingsHere view="hook-up" />
    </div>
  )
}
