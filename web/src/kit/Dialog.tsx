import type { ReactNode } from 'react'
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'
import { PlainButton } from './Button'

interface SlipProps {
  title: string
  isOpen: boolean
  onClose?: () => void
  children: ReactNode
  wide?: boolean
}

/** A slip of paper laid over the sheet; Esc takes it away, what was typed on it stays with whoever opened it. */
export function Slip({ title, isOpen, onClose, children, wide }: SlipProps) {
  return (
    <Over
      isOpen={isOpen}
      isDismissable={!!onClose}
      isKeyboardDismissDisabled={!onClose}
      onOpenChange={(open) => !open && onClose?.()}
    >
      <Paper $wide={wide}>
        <Inner>
          <Top>
            <Title slot="title">{title}</Title>
            {onClose && <PlainButton onPress={onClose}>Close</PlainButton>}
          </Top>
          {children}
        </Inner>
      </Paper>
    </Over>
  )
}

const Over = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  display: grid;
  place-items: center;
  background: rgb(20 32 43 / 45%);
  z-index: 20;
  padding: 16px;
`
const Paper = styled(Modal)<{ $wide?: boolean }>`
  width: min(100%, ${(p) => (p.$wide ? '860px' : '520px')});
  max-height: 100%;
  overflow: auto;
  background: var(--paper);
  border: 3px solid var(--ink);
`
const Inner = styled(Dialog)`
  padding: 16px 20px 20px;
  outline: none;
  display: flex;
  flex-direction: column;
  gap: 12px;
`
const Top = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
`
const Title = styled(Heading)`
  font-size: var(--fs-title);
  font-weight: 600;
  line-height: 1.1;
`
