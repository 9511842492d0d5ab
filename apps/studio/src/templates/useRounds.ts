import { useEffect, useState } from 'react';

/** Milliseconds between the end of the longest and the next beginning of all. */
const BREATH = 600;

/**
 * Counts the times that several templates begin together: again once the longest is over, and a breath.
 * @param seconds length of the longest
 */
export function useRounds(seconds: number): number {
  const [round, setRound] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setRound((n) => n + 1), seconds * 1000 + BREATH);
    return () => clearInterval(timer);
  }, [seconds]);
  return round;
}
