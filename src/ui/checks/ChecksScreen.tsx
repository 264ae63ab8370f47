'use client'
import { checkCatalogue, families } from '@/core/checks/catalogue'
import { plural } from '@/core/units/format'
import { deference } from '@/core/work/deference'
import { SeverityTag } from '../common/SeverityTag'
import { type PersonChoice, TopBar } from '../common/TopBar'
import styles from './Checks.module.css'

const editions = [2017, 2020, 2023] as const

/** Every check there is: what it looks at, how to make it speak, and the article in each edition of the Code. */
export function ChecksScreen({ person }: { person: PersonChoice }) {
  return (
    <>
      <TopBar person={person} />
      <main className={styles.screen}>
        <h1>Checks</h1>
        <p>
          {plural(checkCatalogue.length, 'check')} look at every job, at every change. What is not listed here
          is not looked at. {deference}
        </p>
        {families.map(family => (
          <section key={family} className={styles.card} aria-label={family}>
            <h2>{family}</h2>
            <table className={styles.table}>
              <thead>
                <tr>
                  <th scope="col">Check</th>
                  <th scope="col">Looks at</th>
                  <th scope="col">To make it speak</th>
                  <th scope="col">Article</th>
                </tr>
              </thead>
              <tbody>
                {checkCatalogue
                  .filter(c => c.family === family)
                  .map(({ id, severity, looks, provoke, article }) => (
                    <tr key={id} id={id}>
                      <th scope="row">
                        <SeverityTag severity={severity} /> <code>{id}</code>
                      </th>
                      <td>{looks}</td>
                      <td>{provoke}</td>
                      <td>
                        {typeof article === 'object'
                          ? editions.map(e => (
                              <span key={e} className={styles.edition}>
                                {e}: {article[e]}
                              </span>
                            ))
                          : article}
                      </td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </section>
        ))}
      </main>
    </>
  )
}
