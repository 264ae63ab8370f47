import { Button } from '@mui/material'
import { ArrowLeft, ArrowRight, Pencil, Plus, X } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import {
  ampsAt,
  gapsIn,
  linkOf,
  outletOwner,
  pathOutlet,
  proposedPath,
  standingOnWay,
  withAdapter,
} from '@/core/assess/path'
import { type Equipment, ofKind } from '@/core/equipment'
import { fieldsOf } from '@/core/field'
import { type Link, linkSchema } from '@/core/hookup/design'
import type { WayTold } from '@/core/hookup/way'
import type { House } from '@/core/job/as-planned'
import { continuousShare } from '@/core/source/output'
import { quantity, sentenceStart } from '@/core/units/format'
import { conductorName } from '@/core/units/tables/conductors'
import { HouseToggle } from '../common/HouseToggle'
import { Card, FigureLink, Quiet } from '../common/pieces'
import { moved, Sortable, SortableItem } from '../common/Sortable'
import { Tool } from '../common/Tool'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'

const EquipmentPicker = dynamic(() => import('../equipment/EquipmentPicker').then(m => m.EquipmentPicker))
const FactsDialog = dynamic(() => import('../form/FactsDialog').then(m => m.FactsDialog))

const newId = (path: readonly Link[]) =>
  `l${path.reduce((most, l) => Math.max(most, Number(l.id.replace(/\D/g, '')) || 0), 0) + 1}`

/** For hours so much; and what opens first for an overload through it, and when. */
function opensText(steps: readonly WayTold[]): string {
  const last = steps.at(-1)
  if (!last) return ''
  const hours = `${quantity(last.continuousA, 'A')} for hours`
  if (!last.openedBy || !last.within) return `${hours}; nothing opens`
  const { at135S, at200S } = last.within
  return `${hours}; opens first: ${last.openedBy}, ${
    at135S === at200S
      ? `within ${quantity(at135S, 's')}`
      : `within ${quantity(at135S / 3600, 'h')} at 135 %, ${quantity(at200S, 's')} at 200 %`
  }`
}

/** The way from the source's outlet to the breaker, link by link: what mates, what carries least, the volts at its end. */
export function PathBuilder({ catalogue }: { catalogue: Equipment[] }) {
  const job = useWorkspace(s => s.job)
  const worked = useWorkspace(s => s.evaluation.path)
  const way = useWorkspace(s => s.evaluation.way)
  const showWorking = useWorkspace(s => s.showWorking)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [editing, setEditing] = useState<{ link: Link; at: number } | null>(null)
  const [picking, setPicking] = useState<'cord' | 'adapter' | null>(null)
  const [house, setHouse] = useState<House>('planned')
  const path = job.hookup.path ?? []
  const outlet = pathOutlet(job)
  const adapters = ofKind(catalogue, 'adapter')
  const gaps = gapsIn(job, adapters)
  const set = (next: Link[]) => {
    const [fault] = act({ op: 'setHookup', facts: { path: next } })
    if (fault) say(fault.message)
    return fault ? [fault] : null
  }
  const propose = () => {
    const next = proposedPath(job, {
      cords: ofKind(catalogue, 'cord'),
      adapters,
      inlets: ofKind(catalogue, 'inlet'),
    })
    if (next) set(next)
    else say('No path can be proposed: choose a source with an outlet, and a hook-up.')
  }
  const move = (from: number, to: number) => set(moved(path, from, to))
  const limitedBy = worked?.result.limitedBy
  const there = standingOnWay(job)
  const outletA = outlet ? ampsAt(outlet) : 0
  if (house === 'found')
    return (
      <Card
        aria-label="Path"
        title="Path, from outlet to breaker"
        id="path"
        tools={<HouseToggle value={house} onChange={setHouse} />}
      >
        {there.length ? (
          <ol className={styles.chain}>
            {there.map(({ kind, name }) => (
              <li key={name}>
                <b>{name}</b>
                <span>{sentenceStart(kind)}, there already</span>
              </li>
            ))}
          </ol>
        ) : (
          <Quiet>Nothing of it stands in the house as it was found.</Quiet>
        )}
      </Card>
    )
  return (
    <Card
      aria-label="Path"
      title="Path, from outlet to breaker"
      id="path"
      tools={
        <>
          <HouseToggle value={house} onChange={setHouse} />
          <Button size="small" onClick={propose}>
            {path.length ? 'Propose it anew' : 'Propose a path'}
          </Button>
          <Button size="small" startIcon={<Plus size={16} aria-hidden />} onClick={() => setPicking('cord')}>
            Cord
          </Button>
          <Button
            size="small"
            startIcon={<Plus size={16} aria-hidden />}
            onClick={() => setPicking('adapter')}
          >
            Adapter
          </Button>
          <Button
            size="small"
            startIcon={<Plus size={16} aria-hidden />}
            onClick={() =>
              setEditing({ link: { id: newId(path), kind: 'wire', ratingA: 30 }, at: path.length })
            }
          >
            Inlet, wire, breaker
          </Button>
        </>
      }
    >
      {!outlet && (
        <Quiet>
          The source is wired on, or not chosen: the path begins at its terminals, not at an outlet.
        </Quiet>
      )}
      {(outlet || path.length > 0) && (
        <ol className={styles.chain}>
          <li data-weak={limitedBy === -1}>
            <b>{outlet ? 'Outlet' : 'Terminals'}</b>
            <span>{outlet?.type ?? 'wired on'}</span>
            {outlet && (
              <small>
                {quantity(outletA, 'A')}, {quantity(continuousShare * outletA, 'A')} for hours
              </small>
            )}
            <small>
              {outlet?.limitA ? `${quantity(outlet.limitA, 'A')} its own limit` : outletOwner(job)}
            </small>
          </li>
          <Sortable items={path} nameOf={l => l.name || l.kind} onMove={move}>
            {(link, n) => {
              const gap = gaps.find(g => g.at === n)
              return (
                <SortableItem key={link.id} id={link.id} name={`link ${n + 1}`}>
                  {(grip, bind) => (
                    <li {...bind} data-weak={limitedBy === n} data-gap={gap !== undefined}>
                      {gap && (
                        <div className={styles.gap} role="note">
                          <p>
                            {gap.receptacle} does not take a {gap.plug} plug.{' '}
                            {sentenceStart(gap.adapter.advice)}.
                          </p>
                          {gap.known && gap.adapter.may !== 'not exist' && (
                            <Button
                              size="small"
                              variant="outlined"
                              onClick={() => gap.known && set(withAdapter(path, n, gap.known, newId(path)))}
                            >
                              Put {gap.known.name} in
                            </Button>
                          )}
                        </div>
                      )}
                      <b>
                        {!there.some(t => t.kind === link.kind) && '+ '}
                        {link.name || sentenceStart(link.kind)}
                      </b>
                      <span>
                        {[link.from, link.to].filter(Boolean).join(' → ') || sentenceStart(link.kind)}
                      </span>
                      <small>
                        {quantity(link.ratingA, 'A')}
                        {link.size && `, ${conductorName(link.size, link.material ?? 'cu')}`}
                        {link.lengthFt && `, ${quantity(link.lengthFt, 'ft')}`}
                        {link.listed === false && ', not listed'}
                      </small>
                      <small>{opensText(way.filter(s => s.link === n + 1))}</small>
                      <span className={styles.linkTools}>
                        {grip}
                        <Tool
                          size="small"
                          label={`Earlier: link ${n + 1}`}
                          disabled={n === 0}
                          onClick={() => move(n, n - 1)}
                          icon={ArrowLeft}
                        />
                        <Tool
                          size="small"
                          label={`Later: link ${n + 1}`}
                          disabled={n === path.length - 1}
                          onClick={() => move(n, n + 1)}
                          icon={ArrowRight}
                        />
                        <Tool
                          size="small"
                          label={`Change link ${n + 1}`}
                          onClick={() => setEditing({ link, at: n })}
                          icon={Pencil}
                        />
                        <Tool
                          size="small"
                          label={`Take link ${n + 1} out`}
                          onClick={() => set(path.filter(l => l !== link))}
                          icon={X}
                        />
                      </span>
                    </li>
                  )}
                </SortableItem>
              )
            }}
          </Sortable>
        </ol>
      )}
      {worked && (
        <p>
          <FigureLink onClick={() => showWorking(worked.working)}>{worked.answer}</FigureLink>
        </p>
      )}
      {picking && (
        <EquipmentPicker
          title={picking === 'cord' ? 'A cord' : 'An adapter'}
          items={ofKind(catalogue, picking)}
          onPick={item => {
            const cord = ofKind(catalogue, 'cord').find(c => c.id === item.id)
            const adapter = adapters.find(a => a.id === item.id)
            const first = path.findIndex(l => l.kind !== 'adapter')
            if (cord)
              set([
                ...path.slice(0, Math.max(0, first)),
                linkOf(cord, newId(path)),
                ...path.slice(Math.max(0, first)),
              ])
            else if (adapter) set(withAdapter(path, 0, adapter, newId(path)))
            setPicking(null)
          }}
          onClose={() => setPicking(null)}
        />
      )}
      {editing && (
        <FactsDialog
          title={editing.link.name || sentenceStart(editing.link.kind)}
          schema={linkSchema}
          fields={fieldsOf(linkSchema).filter(f => f.key !== 'id')}
          draft={{ ...editing.link }}
          save="Keep"
          onSave={value => {
            const link = linkSchema.parse(value)
            const next = [...path]
            next[editing.at] = link
            return set(next)
          }}
          onClose={() => setEditing(null)}
        />
      )}
    </Card>
  )
}
