import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { signIn } from '../api/session';
import { useSignInNeeded, wasSignedIn } from '../api/signedIn';
import { Modal } from '../kit/Modal';

const NAME = 'zugluft-name';

function storedName(): string {
  try {
    return localStorage.getItem(NAME) ?? '';
  } catch {
    return '';
  }
}

/** Asks who it is where the server wants to know; what stands behind it stays as it is, typed figures too. */
export function SignIn() {
  const needed = useSignInNeeded();
  const queries = useQueryClient();
  const [name, setName] = useState(storedName);
  const [passphrase, setPassphrase] = useState('');
  const [wrong, setWrong] = useState('');
  const [asking, setAsking] = useState(false);
  const nameField = useRef<HTMLInputElement>(null);
  const passphraseField = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (needed) (storedName() ? passphraseField : nameField).current?.focus();
  }, [needed]);

  const enter = async () => {
    if (!name.trim()) {
      setWrong('a name is needed');
      nameField.current?.focus();
      return;
    }
    setAsking(true);
    setWrong('');
    try {
      const hadBegun = wasSignedIn();
      await signIn(name.trim(), passphrase);
      setPassphrase('');
      try {
        localStorage.setItem(NAME, name.trim());
      } catch {
        // it is asked again next time
      }
      // nothing could be read before: the page begins anew; else it goes on as it stands
      if (hadBegun) await queries.invalidateQueries();
      else location.reload();
    } catch (cause) {
      setWrong((cause as Error).message);
    } finally {
      setAsking(false);
    }
  };

  if (!needed) return null;
  return (
    <Modal title="Sign in" open>
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (!asking) void enter();
        }}
      >
        <label className="grid gap-1">
          Your name, as it stands beside what you change
          <input
            ref={nameField}
            className="input input-sm w-full"
            value={name}
            maxLength={60}
            autoComplete="name"
            required
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <label className="grid gap-1">
          Passphrase of the laboratory
          <input
            ref={passphraseField}
            className="input input-sm w-full"
            type="password"
            value={passphrase}
            maxLength={200}
            autoComplete="current-password"
            required
            aria-invalid={wrong !== ''}
            aria-describedby="sign-in-wrong"
            onChange={(e) => setPassphrase(e.target.value)}
          />
        </label>
        <p id="sign-in-wrong" className="text-heat min-h-6" role="alert">
          {wrong && `Not signed in: ${wrong}.`}
        </p>
        <button type="submit" className="btn btn-sm justify-self-start" disabled={asking}>
          {asking ? 'Asking' : 'Sign in'}
        </button>
      </form>
    </Modal>
  );
}
