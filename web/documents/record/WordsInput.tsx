import { useState } from 'react';
import { getAt, setAt, type Path } from './draft';
import { useMachineFile } from './MachineFile';
import { PlainInput } from '../../kit/PlainInput';

/** A list of words, typed with commas. */
export function WordsInput({ path, label, hint }: { path: Path; label: string; hint?: string }) {
  const { draft, change, issueAt } = useMachineFile();
  const value = getAt(draft, path);
  const words = Array.isArray(value) ? (value as unknown[]).map(String) : [];
  const [typing, setTyping] = useState<string | null>(null);
  const key = path.join('.');
  return (
    <div onBlur={() => setTyping(null)}>
      <PlainInput
        label={label}
        value={typing ?? words.join(', ')}
        hint={hint}
        error={issueAt.get(key) ?? words.map((_, i) => issueAt.get(`${key}.${i}`)).find(Boolean)}
        onChange={(text) => {
          setTyping(text);
          const next = text
            .split(',')
            .map((w) => w.trim())
            .filter(Boolean);
          change((d) => setAt(d, path, next.length ? next : undefined), key);
        }}
      />
    </div>
  );
}
