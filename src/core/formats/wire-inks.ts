import type { WireInk } from './wiring-drawing'

/** Inks of wires on white paper: a white wire is a line with a rim, a bare one copper. */
export const inks: Record<WireInk, { line: string; rim: string | null }> = {
  black: { line: '#111111', rim: null },
  red: { line: '#c62828', rim: null },
  white: { line: '#ffffff', rim: '#555555' },
  green: { line: '#2e7d32', rim: null },
  bare: { line: '#b06a2b', rim: null },
}

const known = Object.keys(inks) as WireInk[]
/** The ink of a wire by its colour in words, the first that is known; null for leads as they come. */
export const inkOf = (colour: string): WireInk | null => known.find(k => colour.includes(k)) ?? null
