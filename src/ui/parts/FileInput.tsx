// A way in for one file, opened by a button elsewhere; the same file may be chosen again.
import type { ReactNode, Ref } from 'react'

interface Props {
  ref: Ref<HTMLInputElement>
  label: string
  /** Endings and types that are offered. */
  accept?: string
  onFile: (file: File) => void
}

export function FileInput({ ref, label, accept, onFile }: Props): ReactNode {
  return (
    <input
      ref={ref}
      type="file"
      hidden
      accept={accept}
      aria-label={label}
      onChange={(event) => {
        const [file] = event.target.files ?? []
        if (file) onFile(file)
        event.target.value = ''
      }}
    />
  )
}
