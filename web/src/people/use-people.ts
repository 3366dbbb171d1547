import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../log/api.ts'

type SavePerson = Parameters<typeof api.savePerson>
type SaveTablet = Parameters<typeof api.saveTablet>

const PEOPLE_KEY = ['people']
const TABLETS_KEY = ['tablets']
/** How often it is looked who is where, in ms. */
const LOOK_MS = 5000

/** The people of the shop, and how they are changed. */
export function usePeople() {
  const client = useQueryClient()
  const put = (data: Awaited<ReturnType<typeof api.people>>) => client.setQueryData(PEOPLE_KEY, data)
  const { data, error } = useQuery({ queryKey: PEOPLE_KEY, queryFn: api.people })
  const add = useMutation({ networkMode: 'always', mutationFn: api.addPerson, onSuccess: put })
  const save = useMutation({
    networkMode: 'always',
    mutationFn: (args: SavePerson) => api.savePerson(...args),
    onSuccess: put,
  })
  return { people: data?.people, error, add, save }
}

/** The tablets that were let in, and how they are changed. */
export function useTablets(enabled: boolean) {
  const client = useQueryClient()
  const { data, error } = useQuery({
    queryKey: TABLETS_KEY,
    queryFn: api.tablets,
    enabled,
    refetchInterval: LOOK_MS,
  })
  const save = useMutation({
    networkMode: 'always',
    mutationFn: (args: SaveTablet) => api.saveTablet(...args),
    onSuccess: (told) => client.setQueryData(TABLETS_KEY, told),
  })
  return { tablets: data?.tablets, error, save }
}
