import { Box, Button } from '@mui/material'
import {
  Background,
  BackgroundVariant,
  BaseEdge,
  Controls,
  type Edge,
  type EdgeProps,
  Handle,
  type Node,
  type NodeChange,
  type NodeProps,
  NodeResizer,
  Position,
  ReactFlow,
} from '@xyflow/react'
import '@xyflow/react/dist/style.css'
import { useMemo, useState } from 'react'
import type { WallBox } from '@/core/hookup/wiring-choices'
import { figure, quantity } from '@/core/units/format'
import type { WiringPlan } from '@/core/work/wiring/parts'
import { wayOnWall } from '@/core/work/wiring/wall'
import { Quiet, Row } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { onPaper, usualBox, wallKinds } from './wall-boxes'

const pxPerFt = 40
const snapPx = pxPerFt / 4

type BoxNode = Node<{ name: string; said: string; onSize: (size: WallBox) => void; box: WallBox }, 'box'>
type PhotoNode = Node<{ src: string; widthFt: number }, 'photo'>

const toPx = (b: WallBox) => ({ x: b.leftFt * pxPerFt, y: -(b.bottomFt + b.heightFt) * pxPerFt })
const rounded = (ft: number) => Math.round(ft * 4) / 4

function WallBoxNode({ data, selected }: NodeProps<BoxNode>) {
  const { box } = data
  const small = box.widthFt < 1 || box.heightFt < 1
  return (
    <Box
      sx={{
        width: '100%',
        height: '100%',
        border: 2,
        borderColor: selected ? 'primary.main' : 'var(--ink-ink)',
        bgcolor: 'var(--ink-paper)',
        color: 'var(--ink-ink)',
        opacity: 0.92,
        fontSize: 'var(--text-mini)',
        lineHeight: 1.15,
        p: 0.25,
        overflow: 'hidden',
        // what is too small for its name bears it above itself
        ...(small && {
          overflow: 'visible',
          '& b': { position: 'absolute', bottom: '100%', left: 0, whiteSpace: 'nowrap' },
        }),
      }}
    >
      <NodeResizer
        isVisible={selected}
        minWidth={snapPx}
        minHeight={snapPx}
        onResizeEnd={(_, { x, y, width, height }) => {
          const heightFt = Math.max(0.25, rounded(height / pxPerFt))
          data.onSize({
            of: box.of,
            leftFt: rounded(x / pxPerFt),
            widthFt: Math.max(0.25, rounded(width / pxPerFt)),
            heightFt,
            bottomFt: rounded(-y / pxPerFt) - heightFt,
          })
        }}
      />
      <b>{data.name}</b>
      <Handle type="source" position={Position.Top} style={{ visibility: 'hidden' }} />
      <Handle type="target" position={Position.Top} style={{ visibility: 'hidden' }} />
    </Box>
  )
}

function PhotoBehind({ data: { src, widthFt } }: NodeProps<PhotoNode>) {
  return (
    <Box
      component="img"
      src={src}
      alt=""
      sx={{ width: widthFt * pxPerFt, opacity: 0.55, display: 'block' }}
    />
  )
}

function Way({ data, label }: EdgeProps<Edge<{ path: string; x: number; y: number }>>) {
  return (
    <BaseEdge
      path={data?.path ?? ''}
      style={{ stroke: 'var(--ink-ink)', strokeWidth: 4 }}
      label={label}
      labelX={data?.x ?? 0}
      labelY={data?.y ?? 0}
    />
  )
}

const nodeKinds = { box: WallBoxNode, photo: PhotoBehind }
const edgeKinds = { way: Way }

/**
 * The wall from the front, to scale: boxes are dragged or moved by arrow keys, sized at their corners; a raceway's length and bends
 * follow.
 */
export function WallSketch({ plan }: { plan: WiringPlan }) {
  const act = useWorkspace(s => s.act)
  const sketch = useWorkspace(s => s.job.wiring?.sketch)
  const photos = useWorkspace(s => s.job.photos)
  const [selected, setSelected] = useState<string | null>(null)
  const [held, setHeld] = useState<Record<string, { x: number; y: number }>>({})
  const boxes = sketch?.boxes ?? []
  const ends = new Set(plan.routes.filter(r => r.from !== r.to).flatMap(r => r.ends))
  const things = plan.enclosures.filter(e => ends.has(e.key) && e.name !== 'the house')
  const missing = things.filter(t => !boxes.some(b => b.of === t.key))
  const place = (box: WallBox) => act({ op: 'placeOnWall', box })
  const nameOf = (key: string) => plan.enclosures.find(e => e.key === key)?.name ?? key
  const nodes: (BoxNode | PhotoNode)[] = [
    ...(sketch?.photoId
      ? [
          {
            id: 'photo',
            type: 'photo' as const,
            position: { x: 0, y: -8 * pxPerFt },
            data: { src: `/api/photos/${sketch.photoId}`, widthFt: sketch.photoWidthFt ?? 8 },
            draggable: false,
            selectable: false,
            focusable: false,
            zIndex: -1,
          },
        ]
      : []),
    ...boxes.map(
      (box): BoxNode => ({
        id: box.of,
        type: 'box',
        position: held[box.of] ?? toPx(box),
        width: box.widthFt * pxPerFt,
        height: box.heightFt * pxPerFt,
        selected: selected === box.of,
        data: { name: nameOf(box.of), said: '', box, onSize: place },
        ariaLabel: `${nameOf(box.of)}, ${quantity(box.leftFt, 'ft')} from the left, ${quantity(box.bottomFt, 'ft')} up`,
      }),
    ),
  ]
  const edges = useMemo(
    () =>
      plan.routes.flatMap((r): Edge[] => {
        const [a, b] = r.ends.map(key => boxes.find(box => box.of === key))
        if (!a || !b || a === b) return []
        const { points, lengthFt, bendsDeg } = wayOnWall(a, b)
        const px = points.map(p => ({ x: p.leftFt * pxPerFt, y: -p.upFt * pxPerFt }))
        const [first, second] = px
        const middle = {
          x: ((first?.x ?? 0) + (second?.x ?? 0)) / 2,
          y: ((first?.y ?? 0) + (second?.y ?? 0)) / 2,
        }
        return [
          {
            id: r.id,
            type: 'way',
            source: a.of,
            target: b.of,
            label: `${quantity(lengthFt, 'ft')}${bendsDeg ? `, ${bendsDeg}°` : ''}`,
            data: { path: `M${px.map(p => `${p.x} ${p.y}`).join('L')}`, ...middle },
            focusable: false,
          },
        ]
      }),
    [plan, boxes],
  )
  const changed = (changes: NodeChange<BoxNode | PhotoNode>[]) => {
    for (const c of changes) {
      if (c.type === 'select') setSelected(was => (c.selected ? c.id : was === c.id ? null : was))
      if (c.type !== 'position' || !c.position) continue
      const box = boxes.find(b => b.of === c.id)
      if (!box) continue
      if (c.dragging) {
        const { position } = c
        setHeld(was => ({ ...was, [c.id]: position }))
        continue
      }
      setHeld(({ [c.id]: _, ...rest }) => rest)
      const next = {
        ...box,
        leftFt: rounded(c.position.x / pxPerFt),
        bottomFt: rounded(-c.position.y / pxPerFt) - box.heightFt,
      }
      if (next.leftFt !== box.leftFt || next.bottomFt !== box.bottomFt) place(next)
    }
  }
  return (
    <>
      <Row>
        {missing.map(({ key, name }) => (
          <Button key={key} size="small" onClick={() => place(usualBox(key, boxes))}>
            Place {name}
          </Button>
        ))}
        {selected && boxes.some(b => b.of === selected) && (
          <Button
            size="small"
            onClick={() => {
              act({ op: 'takeOffWall', of: selected })
              setSelected(null)
            }}
          >
            Take {nameOf(selected)} off
          </Button>
        )}
        {photos.length > 0 && (
          <Box sx={{ width: 200 }}>
            <Choice
              label="Photograph behind"
              value={sketch?.photoId ?? ''}
              options={[
                { value: '', label: 'none' },
                ...photos.map((p, n) => ({ value: p.id, label: p.name || `photograph ${n + 1}` })),
              ]}
              onChange={photoId => act({ op: 'setWallPhoto', photoId: photoId || null })}
            />
          </Box>
        )}
        {sketch?.photoId && (
          <Box sx={{ width: 150 }}>
            <EditFigure
              label="It shows"
              unit="ft"
              value={sketch.photoWidthFt ?? 8}
              schema={wallKinds.photoWidth}
              onCommit={widthFt => act({ op: 'setWallPhoto', photoId: sketch.photoId ?? null, widthFt })}
            />
          </Box>
        )}
      </Row>
      <Box
        role="group"
        aria-label="Sketch of the wall"
        sx={{
          height: 'min(58vh, 480px)',
          border: 1,
          borderColor: 'divider',
          bgcolor: 'var(--ink-paper)',
          ...onPaper,
        }}
      >
        <ReactFlow
          nodes={nodes}
          edges={edges}
          nodeTypes={nodeKinds}
          edgeTypes={edgeKinds}
          onNodesChange={changed}
          snapToGrid
          snapGrid={[snapPx, snapPx]}
          fitView
          fitViewOptions={{ padding: 0.15, maxZoom: 1.1 }}
          minZoom={0.2}
          maxZoom={3}
          nodesConnectable={false}
          zoomOnScroll={false}
          preventScrolling={false}
          zoomActivationKeyCode="Control"
          deleteKeyCode={null}
          proOptions={{ hideAttribution: true }}
          colorMode="light"
        >
          <Background variant={BackgroundVariant.Lines} gap={pxPerFt} />
          <Controls showInteractive={false} />
        </ReactFlow>
      </Box>
      <Quiet>
        A square is 1 ft. Drag a box, or go to it with Tab and move it with the arrow keys; chosen, it is
        sized at its corners. {figure(boxes.length)} of {figure(things.length)} placed.
      </Quiet>
    </>
  )
}
