import { Button } from 'react-aria-components'
import styled from 'styled-components'

/** The one thing to do next: solid ink, one a screen. */
export const MainButton = styled(Button)`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 8px;
  min-height: max(52px, var(--touch));
  padding: 4px 18px;
  background: var(--ink);
  color: var(--paper);
  font-weight: 600;
  font-size: var(--fs-sub);
  &[data-disabled] { background: var(--paper); color: var(--ink-2); box-shadow: inset 0 0 0 1.25px var(--line); cursor: default; }
`

/** Anything else one can do. */
export const PlainButton = styled(Button)`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 8px;
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 2px 14px;
  border: 1.25px solid var(--ink);
  background: var(--leaf);
  font-weight: 500;
  font-size: var(--fs-body);
  &[data-disabled] { color: var(--ink-2); border-color: var(--hair); cursor: default; }
  &[data-hovered] { background: var(--blue-wash); }
`

/** A button that is only words. */
export const WordButton = styled(Button)`
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 0 8px;
  font-weight: 500;
  text-decoration: underline;
  text-underline-offset: 3px;
`
