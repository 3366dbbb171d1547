/** What an entry would change, said before it is made. */
export function Consequences({ says }: { says: readonly string[] }) {
  if (says.length === 0) return <p className="my-3 text-ink-soft">No fact of this setup changes by it.</p>
  return (
    <ul className="my-3 list-disc space-y-0.5 pl-5">
      {says.map((each) => (
        <li key={each}>{each}</li>
      ))}
    </ul>
  )
}
