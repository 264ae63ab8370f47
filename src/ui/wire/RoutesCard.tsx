import { Box, Button, Link } from '@mui/material'
import { routeChoiceSchema } from '@/core/hookup/wiring-choices'
import type { Operation } from '@/core/job/operations'
import { plural, quantity } from '@/core/units/format'
import { type ConduitKind, conduitKinds } from '@/core/units/tables/conduit'
import type { Route, WiringPlan } from '@/core/work/wiring/parts'
import { fillWorking } from '@/core/work/wiring/sizes'
import { DataTable } from '../common/DataTable'
import { Card, FigureLink, Quiet } from '../common/pieces'
import { Check } from '../form/Check'
import { Choice } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'

const saidBy = {
  job: 'entered',
  sketch: 'from the wall',
  device: 'its own leads',
  assumed: 'assumed',
} as const satisfies Record<Route['lengthFrom'], string>

const { lengthFt, bendsDeg } = routeChoiceSchema.shape
const figureOf = (schema: typeof lengthFt | typeof bendsDeg) => schema.unwrap()

/** The ways that wires go together: length, bends and raceway by hand where the proposal does not fit. */
export function RoutesCard({ plan }: { plan: WiringPlan }) {
  const act = useWorkspace(s => s.act)
  const showWorking = useWorkspace(s => s.showWorking)
  const edition = useWorkspace(s => s.job.edition)
  const chosen = useWorkspace(s => s.job.wiring?.routes)
  const ways = plan.routes.filter(r => r.from !== r.to)
  if (!ways.length) return null
  const set = (id: string, facts: object, clear?: string[]) =>
    act({ op: 'setRoute', facts: { id, ...facts }, ...(clear && { clear }) } as Operation)
  const said = (id: string) => plan.open.filter(o => o.at === id).length
  return (
    <Card title="Ways" tools={<Quiet component="span">{plural(ways.length, 'way')}</Quiet>}>
      <DataTable
        label="Ways"
        rows={ways}
        stacked
        idOf={r => r.id}
        rowProps={r => ({ id: `way-${r.id}` })}
        columns={[
          {
            head: 'From, to',
            names: true,
            sx: { minWidth: 150 },
            cell: r => {
              const points = said(r.id)
              return (
                <>
                  {r.name}
                  {points > 0 && (
                    <Quiet sx={{ fontWeight: 400 }}>
                      <Link href="#to-be-looked-at">{plural(points, 'point')} to be looked at</Link>
                    </Quiet>
                  )}
                </>
              )
            },
          },
          {
            head: 'Length',
            cell: r => (
              <Box sx={{ width: 104 }}>
                <EditFigure
                  label="Length"
                  unit="ft"
                  value={r.lengthFt}
                  schema={figureOf(lengthFt)}
                  help={saidBy[r.lengthFrom]}
                  onCommit={value => set(r.id, { lengthFt: value })}
                  onEmpty={() => set(r.id, {}, ['lengthFt'])}
                />
              </Box>
            ),
          },
          {
            head: 'Bends',
            cell: r =>
              r.raceway && (
                <Box sx={{ width: 82 }}>
                  <EditFigure
                    label="Bends"
                    unit="°"
                    value={r.bendsDeg}
                    schema={figureOf(bendsDeg)}
                    onCommit={value => set(r.id, { bendsDeg: value })}
                    onEmpty={() => set(r.id, {}, ['bendsDeg'])}
                  />
                </Box>
              ),
          },
          {
            head: 'Raceway',
            cell: r =>
              r.raceway ? (
                <Box sx={{ width: 116 }}>
                  <Choice<ConduitKind>
                    label="Raceway"
                    value={r.raceway.kind}
                    options={conduitKinds}
                    help={`trade size ${r.raceway.tradeSize}${r.nipple ? ', a nipple' : ''}`}
                    onChange={conduit => set(r.id, { conduit })}
                  />
                </Box>
              ) : (
                <Quiet>none</Quiet>
              ),
          },
          {
            head: 'Where',
            cell: r =>
              r.raceway && (
                <>
                  <Check
                    label="wet"
                    checked={r.wet}
                    onChange={wet => set(r.id, wet ? { wet } : {}, wet ? undefined : ['wet'])}
                  />
                  <Box sx={{ width: 116 }}>
                    <Choice<string>
                      label="Through a wall"
                      value={r.through ?? ''}
                      options={[
                        { value: '', label: 'none to tell' },
                        { value: 'finished', label: 'finished' },
                        { value: 'fire-rated', label: 'fire-rated' },
                      ]}
                      onChange={through => (through ? set(r.id, { through }) : set(r.id, {}, ['through']))}
                    />
                  </Box>
                </>
              ),
          },
          {
            head: 'Filled, held',
            figure: true,
            cell: r =>
              r.raceway && (
                <>
                  <FigureLink
                    label={`How full: ${r.name}`}
                    onClick={() => showWorking(fillWorking(plan, r, edition))}
                  >
                    {quantity(r.fillFraction ?? 0, 'fraction')} of{' '}
                    {quantity(r.mayFillFraction ?? 0, 'fraction')}
                  </FigureLink>
                  <div>{plural(r.supports, 'strap')}</div>
                  {r.pullPoints > 0 && <div>{plural(r.pullPoints, 'pull point')}</div>}
                </>
              ),
          },
          {
            head: '',
            cell: r =>
              chosen?.some(c => c.id === r.id) && (
                <Button
                  size="small"
                  onClick={() =>
                    set(r.id, {}, [
                      'lengthFt',
                      'bendsDeg',
                      'conduit',
                      'tradeSize',
                      'ambientC',
                      'wet',
                      'through',
                    ])
                  }
                >
                  As proposed
                </Button>
              ),
          },
        ]}
      />
    </Card>
  )
}
