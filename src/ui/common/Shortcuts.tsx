import { shortcutsAt, type Where } from './keys'
import { Popup } from './Popup'
import { Columns, Terms } from './pieces'

const headings: Record<Where, string> = {
  job: 'Anywhere in a job',
  panel: 'On the panel',
  bench: 'On the bench',
}

/** The keys that do something here, by place. */
export function Shortcuts({ at, onClose }: { at: readonly Where[]; onClose: () => void }) {
  return (
    <Popup title="Shortcuts" close="Close" onClose={onClose} maxWidth={at.length > 1 ? 'md' : 'sm'}>
      <Columns least={340} sx={{ columnGap: 5 }}>
        {at.map(place => (
          <section key={place}>
            {at.length > 1 && <h3>{headings[place]}</h3>}
            <Terms
              width={165}
              rows={shortcutsAt(place).map(({ shown, what }) => [what, <kbd key={shown}>{shown}</kbd>])}
            />
          </section>
        ))}
      </Columns>
    </Popup>
  )
}
