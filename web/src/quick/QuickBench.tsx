import { useState } from 'react'
import { useParams } from 'react-router'
import styled from 'styled-components'
import type { BenchClient } from '../benches/bench'
import { benchOf } from '../benches/benches'
import { DraftReader } from '../benches/draft'
import { LabelledCell } from '../benches/parts'
import { useDraft } from '../benches/useDraft'
import { useEvaluate } from '../benches/useEvaluate'
import { VerdictColumn } from '../benches/VerdictColumn'
import { Lost } from '../frame/Lost'
import { Sheet } from '../frame/Sheet'
import { PlainButton } from '../kit/Button'
import { Discard, TypedBy } from '../kit/Discard'
import { FileButton } from '../kit/FileButton'
import { saveAs } from '../kit/saveAs'
import { useUnit } from '../units/preferences'
import { readSheet, writeSheet } from './sheetFile'

/** One bench on its own: its limits are typed beside it, since there is no value card. */
export function QuickBench() {
  const bench = benchOf(useParams().name ?? '')
  return bench ? <Quick key={bench.name} bench={bench} /> : <Lost />
}

function Quick({ bench }: { bench: BenchClient }) {
  const unit = useUnit()
  const { draft, touched, others, change, clear } = useDraft(`quick.${bench.name}`, () => bench.start({}, {}))
  const [problem, setProblem] = useState('')
  const limits = bench.quickLimits ?? []
  const reader = new DraftReader(draft)
  const values: Record<string, number> = {}
  for (const { cell, kind } of limits) {
    const value = reader[kind](`limit.${cell}`, '')
    if (value !== null) values[cell] = value
  }
  const preset = bench.quickPreset?.(values) ?? {}
  const reading = bench.read(draft, preset)
  const { result, problems: refused, general } = useEvaluate(bench.name, reading, preset)
  const amiss = bench.quickProblem?.(values)
  const marked = (amiss?.cells ?? []).map((cell) => [`limit.${cell}`, amiss!.says])
  const problems = { ...refused, ...Object.fromEntries(marked) }
  return (
    <Sheet
      title={bench.title}
      note={bench.answers}
      keys={bench.keys}
      verdict={
        <VerdictColumn
          say={result && bench.say(result, unit, null)}
          result={result}
          lacking={reading.lacking}
          general={general || (amiss?.says ?? '')}
          foot={
            <Foot>
              {touched && (
                <>
                  <PlainButton onPress={() => window.print()}>Print</PlainButton>
                  <PlainButton
                    onPress={() =>
                      saveAs(
                        `${bench.name}.json`,
                        writeSheet(bench.name, draft, reading.input && { ...reading.input, ...preset }),
                      )
                    }
                  >
                    Keep as a file
                  </PlainButton>
                </>
              )}
              <FileButton
                label="Open a file"
                file="File of this bench"
                accept=".json,application/json"
                onFile={async (chosen) => {
                  const opened = readSheet(bench.name, await chosen.text())
                  setProblem(typeof opened === 'string' ? opened : '')
                  if (typeof opened !== 'string') change(opened)
                }}
              />
              {touched && <TypedBy others={others} />}
              {touched && <Discard label="Clear the sheet" others={others} onDiscard={clear} />}
              {problem && <p role="alert">{problem}</p>}
            </Foot>
          }
        />
      }
    >
      <div data-bench>
        <bench.Drawing {...{ draft, change, preset, result, problems }} hints={{}} spec={null} />
        {limits.length > 0 && (
          <Limits>
            <h3>Limits</h3>
            {limits.map(({ cell, label, kind, unit: limitUnit }) => (
              <LabelledCell
                key={cell}
                cell={`limit.${cell}`}
                label={label}
                kind={kind}
                unit={kind === 'length' ? undefined : limitUnit}
                draft={draft}
                change={change}
                problems={problems}
              />
            ))}
          </Limits>
        )}
      </div>
    </Sheet>
  )
}

const Foot = styled.div`
  padding: 10px 16px;
  border-bottom: 1.25px solid var(--ink);
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  > button { flex: 1 1 auto; }
  p { flex-basis: 100%; font-weight: 600; }
  @media print { display: none; }
`
const Limits = styled.section`
  border-top: 2px solid var(--ink);
  padding: 8px 16px 16px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 8px 28px;
  align-items: center;
  h3 { font-size: var(--fs-body); font-weight: 600; grid-column: 1 / -1; }
`
