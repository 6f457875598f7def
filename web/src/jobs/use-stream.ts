import { useEffect, useRef, useState } from "react";

/** Server-sent events of an address, the newest one parsed; null before the first. `alive` while they come. */
export function useStream<T>(address: string | null): { told: T | null; alive: boolean } {
  const [told, setTold] = useState<T | null>(null);
  const [alive, setAlive] = useState(false);
  const source = useRef<EventSource | null>(null);
  useEffect(() => {
    if (!address || typeof EventSource === "undefined") return;
    const events = new EventSource(address);
    source.current = events;
    events.onopen = () => {
      setAlive(true);
    };
    events.onerror = () => {
      setAlive(false);
    };
    events.onmessage = (event: MessageEvent<string>) => {
      setAlive(true);
      setTold(JSON.parse(event.data) as T);
    };
    return () => {
      events.close();
    };
  }, [address]);
  return { told, alive };
}
