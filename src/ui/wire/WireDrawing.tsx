import { Box } from '@mui/material'
import {
  Background,
  Controls,
  type NodeProps,
  ReactFlow,
  ReactFlowProvider,
  useReactFlow,
} from '@xyflow/react'
import '@xyflow/react/dist/style.css'
import { type KeyboardEvent, useEffect, useMemo, useRef } from 'react'

import { onPaper } from './wall-boxes'

interface Props {
  svg: string
  /** the circuit that is lit; empty: all */
  lit: string
  onLight: (circuitId: string) => void
}

const stepPx = 60
const arrows: Record<string, readonly [number, number]> = {
  ArrowLeft: [stepPx, 0],
  ArrowRight: [-stepPx, 0],
  ArrowUp: [0, stepPx],
  ArrowDown: [0, -stepPx],
}

function Sheet({ data }: NodeProps) {
  const svg = typeof data.svg === 'string' ? data.svg : ''
  return (
    // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing; every text in it is escaped
    <div dangerouslySetInnerHTML={{ __html: svg }} />
  )
}
const kinds = { sheet: Sheet }

/** The drawing under a hand: dragged, pinched, zoomed by Ctrl and wheel or by its buttons; arrow keys pan it. */
export const WireDrawing = (props: Props) => (
  <ReactFlowProvider>
    <Pane {...props} />
  </ReactFlowProvider>
)

function Pane({ svg, lit, onLight }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const flow = useReactFlow()
  const nodes = useMemo(
    () => [{ id: 'sheet', type: 'sheet', position: { x: 0, y: 0 }, data: { svg }, draggable: false }],
    [svg],
  )
  // the drawing is not drawn anew for a light
  // biome-ignore lint/correctness/useExhaustiveDependencies: a drawing that changed is lit again
  useEffect(() => {
    for (const wire of box.current?.querySelectorAll<SVGGElement>('[data-wire]') ?? [])
      wire.style.opacity = lit && wire.dataset.circuit !== lit ? '0.12' : ''
  }, [lit, svg])
  const pan = (event: KeyboardEvent) => {
    const by = arrows[event.key]
    if (!by || event.target !== event.currentTarget) return
    event.preventDefault()
    const { x, y, zoom } = flow.getViewport()
    void flow.setViewport({ x: x + by[0], y: y + by[1], zoom })
  }
  return (
    <Box
      ref={box}
      role="group"
      aria-label="Drawing of the wires: arrow keys move it"
      tabIndex={0}
      onKeyDown={pan}
      onClick={event => {
        const wire = event.target instanceof Element ? event.target.closest('[data-circuit]') : null
        if (wire) onLight(wire.getAttribute('data-circuit') ?? '')
      }}
      sx={{
        height: 'min(62vh, 560px)',
        bgcolor: 'var(--ink-paper)',
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        ...onPaper,
        '& [data-circuit]': { cursor: 'pointer' },
        '& .react-flow__node': { cursor: 'grab' },
      }}
    >
      <ReactFlow
        nodes={nodes}
        edges={[]}
        nodeTypes={kinds}
        fitView
        fitViewOptions={{ padding: 0.02 }}
        minZoom={0.1}
        maxZoom={4}
        nodesDraggable={false}
        nodesFocusable={false}
        nodesConnectable={false}
        elementsSelectable={false}
        zoomOnScroll={false}
        preventScrolling={false}
        zoomActivationKeyCode="Control"
        proOptions={{ hideAttribution: true }}
        colorMode="light"
      >
        <Background gap={24} size={0.6} />
        <Controls showInteractive={false} />
      </ReactFlow>
    </Box>
  )
}
