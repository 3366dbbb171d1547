/** Longer words are cut off; a file has them whole. */
const SHOWN = 2000

/** What stands somewhere that this version cannot read, word for word. */
export function RawWords({ raw }: { raw: string }) {
  return (
    <pre className="my-1 bg-stock-shade p-2 text-sm break-all whitespace-pre-wrap">
      {raw.length > SHOWN ? `${raw.slice(0, SHOWN)}…` : raw}
    </pre>
  )
}
