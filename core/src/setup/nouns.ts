/** The nouns of reference data, in the order of the pages. Apart from what they are, so that the first screen needs no more. */
export const NOUNS = ['machines', 'profiles', 'vises', 'collets', 'tools', 'materials'] as const
export type Noun = (typeof NOUNS)[number]
