import styles from './CustomerPage.module.css'

/** A link that is unknown, expired or withdrawn: which of them is not told. */
export function LinkGone() {
  return (
    <main className={styles.page}>
      <h1>This link is no longer valid</h1>
      <p>It may have expired, or the installer took it back. Nothing you sent is lost.</p>
      <p>Ask the installer for a new one.</p>
    </main>
  )
}
