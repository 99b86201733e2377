import { fetchJson } from './http';
import { SESSION, signedIn } from './signedIn';

export interface Session {
  needed: boolean;
  name: string | null;
  role: 'member' | 'guest' | null;
}
export interface OpenSession {
  id: string;
  name: string;
  role: 'member' | 'guest';
  since: string;
  seen: string;
  address: string;
  own: boolean;
}

export async function fetchSession(): Promise<Session> {
  const session = await fetchJson<Session>(SESSION);
  if (session.name !== null) signedIn();
  return session;
}
export async function signIn(name: string, passphrase: string): Promise<Session> {
  const session = await fetchJson<Session>(SESSION, {
    method: 'POST',
    body: { name, passphrase },
  });
  signedIn();
  return session;
}
export const signOut = () => fetchJson<Session>(SESSION, { method: 'DELETE' });
export const fetchSessions = () => fetchJson<{ items: OpenSession[] }>('/api/sessions');
export const endSession = (id: string) =>
  fetchJson<{ items: OpenSession[] }>(`/api/sessions/${id}`, { method: 'DELETE' });
