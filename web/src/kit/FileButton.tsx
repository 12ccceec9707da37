import { useRef } from 'react'
import { PlainButton, type WordButton } from './Button'

interface FileButtonProps {
  label: string
  /** Read out instead of the label, where several say the same. */
  says?: string
  /** What the file is, for who cannot see the button. */
  file: string
  accept: string
  onFile: (file: File) => void
  as?: typeof PlainButton | typeof WordButton
}

/** A button that asks for a file; the same one may be chosen again. */
export function FileButton({ label, says, file, accept, onFile, as: Press = PlainButton }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Press aria-label={says} onPress={() => input.current?.click()}>
        {label}
      </Press>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={file}
        onChange={(event) => {
          const chosen = event.target.files?.[0]
          event.target.value = ''
          if (chosen) onFile(chosen)
        }}
      />
    </>
  )
}
