import { describe, expect, it } from 'vitest'
import { documentsOf } from './documentList'

const from = (document: string, issue: string) => ({
  value: 1,
  means: '',
  typed: '',
  none_because: '',
  source: { kind: 'sample' as const, document, issue, page: '1' },
})

describe('the documents of a card', () => {
  it('are told once each, and of two issues in use the older is marked, ten being later than nine', () => {
    const card = { a: from('Manual', '9'), b: from('Manual', '10'), c: from('Manual', '10'), d: from('Site rule', '') }
    expect(documentsOf(card).map((d) => [d.document, d.issue, d.values, d.isOlder])).toEqual([
      ['Manual', '9', 1, true],
      ['Manual', '10', 2, false],
      ['Site rule', '', 1, false],
    ])
  })
})
