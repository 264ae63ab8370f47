import type { Language } from '../languages'
import { escaped } from './svg-text'

/** Colours and sizes are the product’s own; a page brings them along, for it loads nothing but one small script. */
const style = `
:root{color-scheme:light dark;--ink:#15242a;--quiet:#4b5a60;--paper:#fdfbf6;--ground:#efece3;--rule:#c9c5b6;--water:#0c5468;--live:#1d7f94;--shallow:#dcebed;--stop:#a4342b}
@media (prefers-color-scheme:dark){:root{--ink:#e8eef0;--quiet:#a9b7bc;--paper:#12242b;--ground:#0b181d;--rule:#33484f;--water:#7fc4d3;--live:#3a9db2;--shallow:#173640;--stop:#e8857b}}
*{box-sizing:border-box}body{margin:0;background:var(--ground);color:var(--ink);font:1.05rem/1.5 system-ui,sans-serif;overflow-wrap:anywhere}
main{max-width:46rem;margin:0 auto;padding:1rem}h1{font-size:1.5rem;margin:.2rem 0}h2{font-size:1.25rem;margin:0 0 .4rem}h3{font-size:1rem;margin:.8rem 0 .2rem}p{margin:.4rem 0}
section{background:var(--paper);border:1px solid var(--rule);border-radius:6px;padding:1rem;margin:1rem 0}.quiet{color:var(--quiet)}.said{border-left:5px solid var(--live);padding-left:.7rem;font-size:1.1rem}
.note{background:var(--shallow);border-left:5px solid var(--live);padding:.6rem .8rem;margin:1rem 0}
.price{font-size:1.4rem;font-weight:700;font-variant-numeric:tabular-nums}table{width:100%;border-collapse:collapse;font-variant-numeric:tabular-nums}td,th{padding:.3rem .2rem;border-top:1px solid var(--rule);text-align:left;vertical-align:top}td:last-child,th:last-child{text-align:right}
dt{font-weight:600;margin-top:.4rem}dd{margin:0}label{display:block;margin:.6rem 0 .2rem;font-weight:600}input[type=text],input[type=date],input[type=number],textarea{width:100%;font:inherit;color:inherit;background:var(--ground);border:1px solid var(--quiet);border-radius:4px;padding:.6rem}
.pick label{display:flex;gap:.6rem;align-items:center;font-weight:400;min-height:46px;margin:0}.pick input{width:22px;height:22px;flex:none}
canvas{display:block;width:100%;height:170px;background:#fff;border:1px solid var(--quiet);border-radius:4px;touch-action:none}
button,.button{font:inherit;font-weight:650;min-height:46px;padding:.4rem 1rem;border-radius:6px;border:1px solid var(--water);background:none;color:var(--water);cursor:pointer;text-decoration:none;display:inline-flex;align-items:center}
button:disabled{opacity:.55;cursor:default}button.main{background:var(--water);color:var(--paper)}:focus-visible{outline:3px solid var(--live);outline-offset:2px}
.row{display:flex;gap:.6rem;flex-wrap:wrap;align-items:center;margin:.6rem 0}[role=alert]:not(:empty){border-left:5px solid #a4342b;padding-left:.7rem}details summary{min-height:40px;cursor:pointer;font-weight:600}
svg{max-width:18rem;background:#fff;border:1px solid var(--rule)}
@media print{body{background:none}.no-print{display:none}}`

interface PlainPage {
  language?: Language
  title: string
  body: string
  /** styles of its own */
  style?: string
  /** the path of its one script */
  script?: string
  /** more of its head */
  head?: string
}

/** A page that any phone reads, with or without scripts; no index, no referrer. */
export const plainPage = ({ language = 'en', title, body, style: own = '', script, head = '' }: PlainPage) =>
  `<!doctype html><html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex,nofollow"><meta name="referrer" content="no-referrer"><title>${escaped(title)}</title><style>${style}${own}</style>${head}${script ? `<script src="${script}" defer></script>` : ''}</head><body><main>${body}</main></body></html>`
