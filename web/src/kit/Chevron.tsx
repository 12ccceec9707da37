/** What opens below it, and folds away again. */
export function Chevron({ isUp = false }: { isUp?: boolean }) {
  return (
    <svg width="14" height="9" viewBox="0 0 14 9" aria-hidden="true">
      <path d={isUp ? 'M1 8L7 2L13 8' : 'M1 1L7 7L13 1'} fill="none" stroke="currentColor" strokeWidth="2" />
    </svg>
  )
}
