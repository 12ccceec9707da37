import { useState } from 'react'
import styled from 'styled-components'
import { PlainButton } from '../../kit/Button'
import { Chevron } from '../../kit/Chevron'
import { Choice } from '../../kit/Choice'
import { type LengthUnit, showLength, showTyped } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { BenchProps } from '../bench'
import type { Draft } from '../draft'
import { LabelledCell } from '../parts'
import { Brackets } from './Brackets'
import { assumedIn, confirmed, nextSweep, SWEEPS } from './draft'
import {
  BRACKET,
  BRACKET_ON,
  type BracketOn,
  bracketOf,
  type DialSetUp,
  dialsOf,
  METHOD,
  METHOD_NAMES,
  METHOD_PROVES,
  METHOD_WORDS,
  type Method,
  POSITIVE,
  TURNED,
  TURNS,
  WAYS,
} from './methods'

interface SetUpProps extends BenchProps<'alignment'> {
  /** What the two machines are called. */
  machines: Record<BracketOn, string>
}

/** How it is read: method, where the stems stand, sag, which way the dials count, what was turned. */
export function AlignmentSetUp({ draft, change, preset, result, problems, machines }: SetUpProps) {
  const method = METHOD.of(draft)
  const dials = dialsOf(draft)
  const bracket = bracketOf(draft)
  const unit = useUnit()
  const assumed = assumedIn(draft)
  const isAssumed = (cell: string) => {
    const usual = assumed.find((one) => one.cell === cell)
    return usual && `assumed ${showLength(usual.mm, unit)} until it is measured`
  }
  // Typed once, then out of the way; open where something of it is still to be typed.
  const lacks = dials.some((dial) => lacksRadius(dial, draft))
  const [isOpen, setOpen] = useState(lacks || !('movable_feet' in preset))
  const said = saySetUp({ draft: confirmed(draft), method, unit, dials, on: bracket && machines[bracket] })
  return (
    <Setup>
      {method !== 'laser' && dials.length > 0 && (
        <Closure dials={dials.map((d) => d.name)} closure={result?.closure_mm ?? []} />
      )}
      {method !== 'laser' && method !== 'rim and two faces' && dials.length > 0 && (
        <Sweeps>
          <PlainButton isDisabled={result === null} onPress={() => change(nextSweep(draft))}>
            Read it once more
          </PlainButton>
          {SWEEPS.of(draft) > 0 && <span>{SWEEPS.of(draft)} kept, all count alike</span>}
        </Sweeps>
      )}
      <Fold type="button" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        <span>
          <b>Set-up</b> {said}
          {assumed.length > 0 && <em> {assumed.length > 1 ? `${assumed.length} of it assumed` : 'one figure assumed'}</em>}
        </span>
        <Chevron isUp={isOpen} />
      </Fold>
      {isOpen && (
        <>
          <Choice
            hideLabel
            label="Method"
            options={METHOD_NAMES}
            words={METHOD_WORDS}
            value={method}
            onChange={(m) => change(METHOD.put(draft, m))}
          />
          <p>{METHOD_PROVES[method]}</p>
          {bracket && (
            <Choice
              label="Bracket on the shaft of the"
              options={BRACKET_ON}
              words={machines}
              value={bracket}
              onChange={(on) => change(BRACKET.put(draft, on))}
            />
          )}
          {dials.map((dial) => (
            <div className="cells" key={dial.id}>
              <LabelledCell
                cell={`${dial.id}.x`}
                label={method === 'laser' ? `${dial.name}: from coupling` : `${dial.name}: stem from coupling`}
                detail={isAssumed(`${dial.id}.x`)}
                part="set-up"
                draft={draft}
                change={change}
                problems={problems}
                width={84}
              />
              {dial.kind === 'face' && (
                <LabelledCell
                  cell={`${dial.id}.radius`}
                  label={`${dial.name}: radius of the stem`}
                  detail={isAssumed(`${dial.id}.radius`)}
                  part="set-up"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              )}
              {dial.sags && (
                <LabelledCell
                  cell={`${dial.id}.sag`}
                  label={`${dial.name}: bracket sag at 6`}
                  detail={isAssumed(`${dial.id}.sag`)}
                  part="aside"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              )}
            </div>
          ))}
          {assumed.length > 0 && (
            <PlainButton onPress={() => change(confirmed(draft))}>
              It is so: {assumed.map(({ mm }) => showLength(mm, unit)).join(', ')}
            </PlainButton>
          )}
          {dials.some((dial) => dial.sags) && <Brackets draft={draft} change={change} />}
          {!('movable_feet' in preset) && (
            <div className="cells">
              <LabelledCell
                cell="foot.near"
                label="Coupling to near feet"
                part="set-up"
                draft={draft}
                change={change}
                problems={problems}
                width={84}
              />
              <LabelledCell
                cell="foot.far"
                label="Coupling to far feet"
                part="set-up"
                draft={draft}
                change={change}
                problems={problems}
                width={84}
              />
              {(['near', 'far'] as const).map((which) => (
                <LabelledCell
                  key={which}
                  cell={`foot.other_${which}`}
                  label={`Other machine, ${which} feet`}
                  part="aside"
                  draft={draft}
                  change={change}
                  problems={problems}
                  width={84}
                />
              ))}
            </div>
          )}
          {dials.length > 0 && (
            <>
              <Choice
                label="Plus on these dials is the stem pushed"
                options={WAYS}
                value={POSITIVE.of(draft)}
                onChange={(way) => change(POSITIVE.put(draft, way))}
              />
              <Choice
                label="Turned while reading"
                options={TURNS}
                value={TURNED.of(draft)}
                onChange={(turned) => change(TURNED.put(draft, turned))}
              />
            </>
          )}
        </>
      )}
    </Setup>
  )
}

const lacksRadius = (dial: DialSetUp, draft: Draft) =>
  dial.kind === 'face' && !confirmed(draft).cells[`${dial.id}.radius`]?.text.trim()

interface Said {
  draft: Draft
  method: Method
  unit: LengthUnit
  dials: readonly DialSetUp[]
  on: string | null
}

/** The set-up in one line: "rim & face, bracket on the blower, stem 150, sag −0.02". */
function saySetUp({ draft, method, unit, dials, on }: Said): string {
  const typed = (cell: string) => {
    const here = draft.cells[cell]
    return here?.text.trim() ? showTyped(here, unit).replace(/^-/, '−') : ''
  }
  const stems = [...new Set(dials.map((dial) => typed(`${dial.id}.x`)).filter(Boolean))]
  const sags = [...new Set(dials.map((dial) => typed(`${dial.id}.sag`)).filter(Boolean))]
  return [
    METHOD_WORDS[method].toLowerCase(),
    on ? `bracket on the ${on}` : '',
    stems.length ? `stem ${stems.join(' and ')} ${unit}` : '',
    sags.length ? `sag ${sags.join(' and ')}` : '',
    dials.length && method !== 'laser' ? `+ is stem ${POSITIVE.of(draft) === 'out' ? 'let out' : 'pushed in'}` : '',
  ]
    .filter(Boolean)
    .join(', ')
}

function Closure({ dials, closure }: { dials: string[]; closure: (number | null)[] }) {
  const unit = useUnit()
  return (
    <div className="closure">
      <b>12 + 6 = 3 + 9</b>
      {dials.map((dial, i) => {
        const misses = closure[i]
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: in the order of the dials
          <div key={i}>
            {dial}:{' '}
            {misses === undefined
              ? 'not read yet'
              : misses === null
                ? 'one of the four is not read'
                : Math.abs(misses) < 0.0005
                  ? 'closes'
                  : `off by ${showLength(Math.abs(misses), unit, 3)}`}
          </div>
        )
      })}
    </div>
  )
}

const Fold = styled.button`
  display: flex;
  min-height: var(--touch);
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  text-align: left;
  font-size: var(--fs-text);
  line-height: 1.2;
  border-block: 0.75px solid var(--line);
  b { font-weight: 600; }
  em { font-style: normal; font-weight: 600; }
  svg { flex: none; }
`
const Sweeps = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: var(--fs-small);
`
const Setup = styled.div`
  flex: 1 1 180px;
  min-width: 180px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  && > p { width: auto; font-size: var(--fs-small); color: var(--ink-2); line-height: 1.25; padding: 0; }
  .cells { display: flex; flex-direction: column; gap: 6px; }
  .closure { font-size: var(--fs-text); line-height: 1.3; }
  .closure b { font-family: var(--read); font-weight: 500; }
`
