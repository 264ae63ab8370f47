/** Our mark: water standing behind a crest and spilling over it. */
export function Logo({ size = 24 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true">
      <path d="M1 9h9c2 0 2.6 1 3.2 3.2C14.4 17 16 20 22 20.5V23H1z" fill="var(--mui-palette-water-live)" />
      <path d="M10 12l3 11H7z" fill="var(--mui-palette-text-primary)" />
    </svg>
  )
}
