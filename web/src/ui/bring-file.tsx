import type { ReactNode } from "react";
import { useRef } from "react";

import { Word } from "./pill";

/** A word that brings a file; the same file can be brought again. */
export function BringFile(props: { label: string; accept: string; take: (file: File) => void; children: ReactNode }) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label={props.label}
        accept={props.accept}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) props.take(file);
          event.target.value = "";
        }}
      />
      <Word textDecoration="underline" paddingLeft="0" onClick={() => picker.current?.click()}>
        {props.children}
      </Word>
    </>
  );
}
