import type { CellsProps } from '../benches/bench'
import { PlainButton } from '../kit/Button'
import { Words } from '../kit/Field'
import { POINTS } from './lineDraft'

interface PointsProps extends Pick<CellsProps, 'draft' | 'problems'> {
  set: (key: string, value: unknown) => void
}

/** Where each energy of the line is locked. */
export function IsolationPoints({ draft, set, problems }: PointsProps) {
  const points = POINTS.of(draft)
  const put = (i: number, key: 'energy' | 'point', value: string) =>
    set(
      'points',
      points.map((p, at) => (at === i ? { ...p, [key]: value } : p)),
    )
  return (
    <>
      {points.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: points have no other name than their place
        <div className="three" key={i}>
          <Words
            label="Energy"
            value={p.energy}
            onChange={(v) => put(i, 'energy', v)}
            problem={problems[`isolation_points.${i}.energy`]}
          />
          <Words
            label="Isolated at"
            value={p.point}
            onChange={(v) => put(i, 'point', v)}
            problem={problems[`isolation_points.${i}.point`]}
          />
        </div>
      ))}
      <PlainButton onPress={() => set('points', [...points, { energy: '', point: '' }])}>Add an isolation point</PlainButton>
    </>
  )
}
