/** Who wants to know that something changed: the half of a store that React's useSyncExternalStore asks for. */
export function listenerSet() {
  const listeners = new Set<() => void>()
  return {
    notify: () => {
      for (const listener of listeners) listener()
    },
    subscribe: (listener: () => void) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
}
