import { type CSSProperties, type ReactNode, useLayoutEffect, useRef, useState } from 'react'
import styled from 'styled-components'

interface DrawingProps {
  /** Left, top, width and height of the paper; a unit is a pixel where there is room. */
  paper: readonly [number, number, number, number]
  /** What it shows, for who cannot see it; without it the cells beside it say the same. */
  says?: string | undefined
  /** Drawn along the shaft: a narrow sheet takes from its length and leaves heights alone. */
  along?: boolean
  /** The part of the paper a narrow sheet shows instead of all of it. */
  narrow?: DrawingProps['paper'] | undefined
  /** No larger than this many times its paper. */
  most?: number
  children: ReactNode | ((paper: DrawingProps['paper']) => ReactNode)
}

const CUT_BELOW = 0.75 // shares of the paper: above that the whole is still to be read

/** A drawing as wide as its place. Where that is narrower than its paper the lines give way and the writing does not. */
export function Drawing({ paper: whole, says, along = false, narrow: part, most, children }: DrawingProps) {
  const place = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState(whole[2])
  const isCut = part !== undefined && room < whole[2] * CUT_BELOW
  const paper = isCut ? part : whole
  const [, , width, height] = paper
  const share = Math.min(1, Math.round((room / width) * 100) / 100)
  useLayoutEffect(() => {
    const measure = () => {
      const wide = place.current?.clientWidth
      if (wide) setRoom(wide)
    }
    measure()
    if (typeof ResizeObserver === 'undefined') return
    const watch = new ResizeObserver(measure)
    if (place.current) watch.observe(place.current)
    return () => watch.disconnect()
  }, [])
  const narrow = share < 1
  const writing = { '--wider': 1 / share, '--taller': along ? 1 : 1 / share } as CSSProperties
  return (
    <Place ref={place} style={most ? { maxWidth: whole[2] * most } : undefined}>
      <svg
        viewBox={paper.join(' ')}
        {...(says ? { role: 'img', 'aria-label': says } : { 'aria-hidden': true })}
        {...(isCut && { 'data-cut': '' })}
        {...(narrow && { 'data-narrow': '', style: writing })}
        {...(narrow && along && { preserveAspectRatio: 'none', height })}
      >
        {typeof children === 'function' ? children(paper) : children}
      </svg>
    </Place>
  )
}

const Place = styled.div`
  min-width: 0;
  > svg { display: block; width: 100%; overflow: visible; }
  > [data-cut] { overflow: hidden; }
  /* Writing over lines stands on the paper. */
  .halo { paint-order: stroke; stroke: var(--paper); stroke-width: 5px; stroke-linejoin: round; }
  > [data-narrow] :is(path, circle, rect) { vector-effect: non-scaling-stroke; }
  > [data-narrow] text { transform-box: fill-box; transform: scale(var(--wider), var(--taller)); transform-origin: left; }
  > [data-narrow] [data-large] { transform: none; }
  > [data-narrow] [text-anchor='middle'] { transform-origin: center; }
  > [data-narrow] [text-anchor='end'] { transform-origin: right; }
`
