import { useLayoutEffect, useRef, useState } from "react";

/** The room that an element has on the page, kept up as it changes. */
export function useSize() {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(() => {
      const { width, height } = element.getBoundingClientRect();
      setSize((old) => (old.width === width && old.height === height ? old : { width, height }));
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
    };
  }, []);
  return [ref, size] as const;
}
