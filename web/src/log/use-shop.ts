import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type ShopState } from './api.ts'

const SHOP_KEY = ['shop']
/** While a backup is being made, and else, in ms. */
const MAKING_MS = 1000
const SELDOM_MS = 600_000

/** The shop's logbook as a whole, its disk and its backups. */
export const useShop = ({ enabled = true } = {}) =>
  useQuery({
    queryKey: SHOP_KEY,
    queryFn: api.shop,
    enabled,
    refetchInterval: ({ state }) => (state.data?.backups.running ? MAKING_MS : SELDOM_MS),
  })

/** Begins a backup, or stops the one that is being made. */
export function useBackup() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (what: 'make' | 'stop') => (what === 'make' ? api.makeBackup() : api.stopBackup()),
    onSuccess: (shop: ShopState) => client.setQueryData(SHOP_KEY, shop),
  })
}
