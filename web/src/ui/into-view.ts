/** For `ref` of what is chosen in a list that scrolls: it is seen when it is chosen by something else than a press on it. */
export const intoView = (element: HTMLElement | null) => element?.scrollIntoView({ block: 'nearest' })
