/** Where a part, tool or hour is decided: a screen, and what of it. */
export interface ViewOfWork {
  view: 'wire' | 'plan' | 'hook-up' | 'source' | 'panel' | 'tests'
  /** a route, change or device of that screen */
  of?: string
}
