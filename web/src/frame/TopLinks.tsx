import styled from 'styled-components'

/** Where else one may want to go from a sheet, in its head. */
export const TopLinks = styled.div`
  display: flex;
  align-items: stretch;
  a { display: flex; align-items: center; padding: 0 14px; min-height: var(--touch); min-width: var(--touch); border-left: 1.25px solid var(--hair); font-weight: 500; }
`
