import type { MachineGlance, ShopBoard, ToldBoard } from './board-schema.ts'

/** The board as it is now, from the one that was known and what was told since; undefined where that does not go together. */
export function boardNow(known: ShopBoard | undefined, told: ToldBoard): ShopBoard | undefined {
  const machines: MachineGlance[] = []
  for (const each of told.machines) {
    const machine = 'same' in each ? known?.machines.find(({ id }) => id === each.id) : each
    if (!machine) return undefined
    machines.push(machine)
  }
  return { machines, unreadable: told.unreadable }
}
