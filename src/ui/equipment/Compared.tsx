import Button from '@mui/material/Button'
import type { Equipment } from '@/core/equipment'
import { compareEquipment } from '@/core/equipment/sheet'
import styles from './Equipment.module.css'

/** Two to four items fact by fact; what differs stands bold, with a mark. */
export function Compared({ items, onClear }: { items: readonly Equipment[]; onClear: () => void }) {
  return (
    <section className={`${styles.card} ${styles.scroll}`} aria-label="Compared">
      <div className={styles.comparedHead}>
        <h2>Side by side</h2>
        <Button size="small" onClick={onClear}>
          Put away
        </Button>
      </div>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">≠ differs</th>
            {items.map(i => (
              <th key={i.id} scope="col">
                {i.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {compareEquipment(items).map(row => (
            <tr key={row.title + row.values.join()} data-differs={row.differs}>
              <th scope="row">
                {row.differs ? '≠ ' : ''}
                {row.title}
              </th>
              {row.values.map((value, n) => (
                <td key={items[n]?.id}>{value || <span className={styles.quiet}>nobody said</span>}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
