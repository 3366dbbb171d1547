/** The click of a finger comes so soon after it was lifted, in ms, or not at all. */
export const CLICK_MS = 350
