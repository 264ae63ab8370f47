import { inEdition } from './articles'
import { evaluate } from './assess/evaluate'
import { circuit, job, load } from './job/fixtures/jobs'

test('articles follow the edition, each once, and what did not move stays', () => {
  const text = 'NEC 310.16, 310.15(C)(1), 240.4(D); 705.12(B)(3)(2) and 705.12(B)(3)'
  expect(inEdition(text, 2017)).toBe(
    'NEC table 310.15(B)(16), table 310.15(B)(3)(a), 240.4(D); 705.12(B)(2)(3)(b) and 705.12(B)(2)(3)',
  )
  expect(inEdition(text, 2020)).toBe(text)
  expect(inEdition(text, 2023)).toBe('NEC 310.16, 310.15(C)(1), 240.4(D); 705.12(B)(2) and 705.12(B)')
  expect(inEdition('table 310.16', 2017)).toBe('table 310.15(B)(16)')
})

test('workings of a job cite by its edition too', () => {
  const wired = (edition: 2017 | 2020) =>
    evaluate(
      job([circuit(1, { loads: [load(100)] })], {
        edition,
        hookup: {
          method: 'interlocked-inlet',
          bondingPlug: false,
          path: [{ id: 'w', kind: 'wire', ratingA: 20, size: '12', lengthFt: 10 }],
        },
      }),
    ).path?.working.rows?.map(r => r.table)
  expect(wired(2017)).toEqual(['NEC table 310.15(B)(16) and 240.4(D)'])
  expect(wired(2020)).toEqual(['NEC 310.16 and 240.4(D)'])
})
