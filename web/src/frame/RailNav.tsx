import styled from 'styled-components'

/** The margin of a list: what of it is shown, and where else one may want to go. */
export const RailNav = styled.nav`
  @media (max-width: 860px) { display: grid; grid-template-columns: repeat(auto-fit, minmax(170px, 1fr)); }
  > button, > a { display: flex; width: 100%; min-height: max(48px, var(--touch)); align-items: center; padding: 0 14px; font-size: var(--fs-body); font-weight: 500; border-bottom: 0.75px solid var(--line); text-decoration: none; text-align: left; line-height: 1.1; gap: 8px; }
  b { margin-left: auto; font: 500 var(--fs-sub) var(--read); }
  [aria-pressed='true'] { background: var(--ink); color: var(--paper); font-weight: 600; }
`
