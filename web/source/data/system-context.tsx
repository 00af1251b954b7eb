import { createContext, use, useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import { useQuery } from '@tanstack/react-query';
import { api } from './api';
import { SystemStore, type SystemState } from './system-store';

const StoreContext = createContext<SystemStore | null>(null);

/** Loads a system once and keeps it as a store; shows `pending` until it is there and `failed` when it is not. */
export function SystemProvider({
  id,
  pending,
  failed,
  children,
}: {
  id: string;
  pending: ReactNode;
  failed: (error: Error) => ReactNode;
  children: ReactNode;
}) {
  const query = useQuery({
    queryKey: ['system', id],
    queryFn: () => api.system(id),
    staleTime: 0,
    gcTime: 0,
    refetchOnMount: 'always',
  });
  const [store, setStore] = useState<SystemStore | null>(null);
  const { data, error } = query;
  useEffect(() => {
    // The store goes on by itself from here: events keep it current, so one answer is all it needs.
    if (data && store?.id !== id) setStore(new SystemStore(id, data));
  }, [data, id, store]);
  if (error && !store) return failed(error);
  if (!store || store.id !== id) return pending;
  return <StoreContext value={store}>{children}</StoreContext>;
}

export function useStore(): SystemStore {
  const store = use(StoreContext);
  if (!store) throw new Error('useStore is called outside a SystemProvider');
  return store;
}

/** One part of the state of a system. Who asks for it is drawn anew when it changes, and for nothing else. */
export function useSystemPart<Name extends keyof SystemState>(name: Name): SystemState[Name] {
  const store = useStore();
  return useSyncExternalStore(store.subscribe, () => store.state()[name]);
}
