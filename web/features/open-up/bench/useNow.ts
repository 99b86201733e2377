import { useEffect, useState } from 'react';

/** The time, renewed every second while something runs. */
export function useNow(running: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    setNow(Date.now());
    if (!running) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [running]);
  return now;
}

/** Seconds as `4:05`, from an hour on `1:04:05`. */
export function clockWords(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds));
  const two = (n: number) => String(n).padStart(2, '0');
  const h = Math.floor(s / 3600);
  const rest = `${h ? two(Math.floor(s / 60) % 60) : Math.floor(s / 60)}:${two(s % 60)}`;
  return h ? `${h}:${rest}` : rest;
}
