import type { Answer } from '@dogleg/core/api'
import { boardNow, type ShopBoard } from '@dogleg/core/traveler'
import { keepPreviousData, type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from './api.ts'
import { useAskEvery } from './changes.ts'
import { BOARD_KEY } from './log-cache.ts'

const LISTEN_MS = 5000

/** The board as it is known here, with what everybody must know of the logbook. */
interface Board extends Omit<Answer<'board'>, 'board'> {
  board: ShopBoard
}

const asked = (client: QueryClient, operator: string) => {
  const queryKey = [...BOARD_KEY, operator]
  return {
    queryKey,
    queryFn: async (): Promise<Board> => {
      const known = client.getQueryData<Board>(queryKey)
      const told = await api.board(operator, known?.mark)
      const board = told.board ? boardNow(known?.board, told.board) : known?.board
      if (board === undefined) throw new Error('The shop’s board did not come. It is asked for again.')
      return { ...told, board }
    },
  }
}

/** Asks for the board before the page that shows it is drawn: on a slow tablet the one takes as long as the other. */
export const askBoardAhead = (client: QueryClient, operator: string) =>
  client.prefetchQuery(asked(client, operator))

/** The shop's board for whoever is at this tablet. Where nothing has changed, what is known stands on. */
export function useBoard(operator: string) {
  const client = useQueryClient()
  const every = useAskEvery(LISTEN_MS)
  return useQuery({
    ...asked(client, operator),
    placeholderData: keepPreviousData,
    // While the logbook is read through, each may be another.
    refetchInterval: (query) => (query.state.data?.reads === undefined ? every(query) : LISTEN_MS),
  })
}
