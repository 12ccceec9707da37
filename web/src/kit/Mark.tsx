/** The mark: an anvil with a vee cut in its face and a wedge set in it. */
export function Mark({ size = 36 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
      <path
        fill="var(--ink)"
        d="M1 9H9.2L16 17.4L22.8 9H31V15.2C26.6 15.4 23.2 16.4 22 18.8C21 21 22.4 23.2 27 24V28H5V24C9.6 23.2 11 21 10 18.8C8.9 16.6 4.6 15 1 9Z"
      />
      <path fill="var(--wedge)" d="M16 13.6L10.4 6.6H21.6Z" />
    </svg>
  )
}
