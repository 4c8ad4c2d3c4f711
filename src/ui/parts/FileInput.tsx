// A way in for a file, or for several, opened by a button elsewhere; the same file may be chosen again.
import type { ReactNode, Ref } from 'react'

interface Props {
  ref: Ref<HTMLInputElement>
  label: string
  /** Endings and types that are offered. */
  accept?: string
  multiple?: boolean
  /** Called for each file that was chosen. */
  onFile: (file: File) => void
}

export function FileInput({ ref, label, accept, multiple = false, onFile }: Props): ReactNode {
  return (
    <input
      ref={ref}
      type="file"
      hidden
      accept={accept}
      multiple={multiple}
      aria-label={label}
      onChange={(event) => {
        for (const file of event.target.files ?? []) onFile(file)
        event.target.value = ''
      }}
    />
  )
}
