/** How the name of a logbook begins that holds the made-up shop: with every answer it says so. */
const DEMO = 'demo-'

export const demoName = (id: string) => `${DEMO}${id}`

/** The id in a logbook's name: a ULID, which says when it was begun. */
export const idOfLogbook = (logbook: string) => (isDemo(logbook) ? logbook.slice(DEMO.length) : logbook)

/** Whether a logbook is the demo's, by its name: nothing that is entered there is of anybody's work. */
export const isDemo = (logbook: string): boolean => logbook.startsWith(DEMO)
