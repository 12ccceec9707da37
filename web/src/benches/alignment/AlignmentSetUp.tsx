import styled from 'styled-components'
import { PlainButton } from '../../kit/Button'
import { Choice } from '../../kit/Choice'
import { showLength } from '../../units/length'
import { useUnit } from '../../units/preferences'
import type { BenchProps } from '../bench'
import { LabelledCell } from '../parts'
import { Brackets } from './Brackets'
import { nextSweep, SWEEPS, withUsualPlaces } from './draft'
import {
  BRACKET,
  BRACKET_ON,
  type BracketOn,
  bracketOf,
  dialsOf,
  METHOD,
  METHOD_NAMES,
  METHOD_PROVES,
  METHOD_WORDS,
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
  const placed = withUsualPlaces(draft)
  return (
    <Setup>
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
      {method !== 'laser' && dials.length > 0 && (
        <Closure dials={dials.map((d) => d.name)} closure={result?.closure_mm ?? []} />
      )}
      {dials.map((dial) => (
        <div className="cells" key={dial.id}>
          <LabelledCell
            cell={`${dial.id}.x`}
            label={method === 'laser' ? `${dial.name}: from coupling` : `${dial.name}: stem from coupling`}
            part="set-up"
            draft={placed}
            change={change}
            problems={problems}
            width={84}
          />
          {dial.kind === 'face' && (
            <LabelledCell
              cell={`${dial.id}.radius`}
              label={`${dial.name}: radius of the stem`}
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
              part="aside"
              draft={draft}
              change={change}
              problems={problems}
              width={84}
            />
          )}
        </div>
      ))}
      {method !== 'laser' && method !== 'rim and two faces' && dials.length > 0 && (
        <Sweeps>
          <PlainButton isDisabled={result === null} onPress={() => change(nextSweep(draft))}>
            Read it once more
          </PlainButton>
          {SWEEPS.of(draft) > 0 && <span>{SWEEPS.of(draft)} kept, all count alike</span>}
        </Sweeps>
      )}
      {dials.some((dial) => dial.sags) && <Brackets draft={draft} change={change} />}
      {!('movable_feet' in preset) && (
        <div className="cells">
          <LabelledCell
            cell="foot.near"
            label="Near feet from coupling"
            part="set-up"
            draft={draft}
            change={change}
            problems={problems}
            width={84}
          />
          <LabelledCell
            cell="foot.far"
            label="Far feet from coupling"
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
    </Setup>
  )
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

const Sweeps = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: 14px;
`
const Setup = styled.div`
  flex: 1 1 180px;
  min-width: 180px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  && > p { width: auto; font-size: 14px; color: var(--ink-2); line-height: 1.25; padding: 0; }
  .cells { display: flex; flex-direction: column; gap: 6px; }
  .closure { font-size: 15px; line-height: 1.3; }
  .closure b { font-family: var(--read); font-weight: 500; }
`
