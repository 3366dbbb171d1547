/** Said in a comment of a text whose moves Dogleg turned: nothing else in it tells, and a text turned twice lies askew. */
const MARK = /\bMOVES TURNED -?[\d.]+ DEG\b/i

/** The words of that comment; `angle` in degrees, as printed. */
export const movesTurned = (angle: string) => `Moves turned ${angle} deg`

/** The line, from 1, whose comment says that the moves of a text are turned; undefined where none does. */
export function turnedLine(text: string): number | undefined {
  const at = text.search(MARK)
  return at < 0 ? undefined : text.slice(0, at).split(/\r\n|\r|\n/).length
}
