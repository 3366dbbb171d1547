/** The order in which a vise is cleaned and set down (common practice), shown before the first sweep. */
export function CleaningGuide({ why }: { why: string | undefined }) {
  return (
    <section aria-label="Before the first sweep" className="space-y-2">
      <h2 className="text-lg font-semibold">Before the first sweep</h2>
      {why && <p className="hatched px-1 font-semibold">{why}</p>}
      <ol className="list-decimal space-y-1 pl-5 leading-snug">
        <li>Brush and clear the T-slots, wash the table down.</li>
        <li>Wipe table and vise base with solvent.</li>
        <li>
          Stone both with the fine side: aluminium oxide for general use; silicon carbide is aggressive.
        </li>
        <li>Feel by hand for grit. A thin film of rust preventive.</li>
        <li>Set the vise down and slide it to and fro.</li>
        <li>
          Two bolts lightly snug, then take one out: with one bolt it turns about a known place, with two it
          rocks.
        </li>
        <li>
          Spindle stopped, indicator on the fixed jaw. Zero it near the bolt that stays, then sweep to the far
          end.
        </li>
      </ol>
      <p className="text-sm text-ink-soft">
        A vise is heavy and its edges are sharp: lift it with help or a hoist. Stop the spindle before you
        reach in.
      </p>
    </section>
  )
}
