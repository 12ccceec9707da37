import { useId } from 'react'

/** Hatch patterns with ids of their own, since several drawings share a page. */
export function useHatch() {
  const id = useId()
  const defs = (
    <defs>
      <pattern id={`${id}a`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7" stroke="var(--ink)" strokeWidth=".75" />
      </pattern>
      <pattern id={`${id}b`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0V6" stroke="var(--ink)" strokeWidth=".75" />
      </pattern>
      <marker
        id={`${id}m`}
        viewBox="0 0 12 12"
        refX="10"
        refY="6"
        markerWidth="15"
        markerHeight="15"
        markerUnits="userSpaceOnUse"
        orient="auto-start-reverse"
      >
        <path d="M0 0L12 6L0 12Z" fill="var(--ink)" />
      </marker>
      <marker
        id={`${id}d`}
        viewBox="0 0 12 6"
        refX="11.5"
        refY="3"
        markerWidth="11"
        markerHeight="5.5"
        markerUnits="userSpaceOnUse"
        orient="auto-start-reverse"
      >
        <path d="M0 0L12 3L0 6Z" fill="var(--ink)" />
      </marker>
    </defs>
  )
  return { defs, fixed: `url(#${id}a)`, other: `url(#${id}b)`, move: `url(#${id}m)`, arrow: `url(#${id}d)` }
}
