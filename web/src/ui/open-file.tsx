import { FileUp } from 'lucide-react'

interface OpenFileProps {
  says: string
  /** What is opened, for who cannot see where the key stands. */
  label: string
  /** Endings and kinds that are offered: '.csv,.txt'. */
  accept: string
  onFile: (file: File | undefined) => void
  /** Where several can be opened at once: they are, in place of the first. */
  onFiles?: (files: readonly File[]) => void
}

/** A key that opens a file of the tablet; the same file may be opened again. */
export const OpenFile = ({ says, label, accept, onFile, onFiles }: OpenFileProps) => (
  <label className="inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-sm border border-ink-soft px-3 font-semibold focus-within:outline-3 hover:bg-stock-shade">
    <FileUp aria-hidden size={20} /> {says}
    <input
      type="file"
      accept={accept}
      aria-label={label}
      multiple={onFiles !== undefined}
      onChange={({ target }) => {
        const files = [...(target.files ?? [])]
        if (onFiles && files.length > 1) onFiles(files)
        else onFile(files[0])
        target.value = ''
      }}
      className="sr-only"
    />
  </label>
)
