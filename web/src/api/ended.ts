const told = new EventTarget();
const ENDED = "ended";

/** Tells whoever listens that a question was refused because nobody is signed in any more. */
export function tellEnded(): void {
  told.dispatchEvent(new Event(ENDED));
}

/** Calls `hear` each time; returns what ends that. */
export function hearEnded(hear: () => void): () => void {
  told.addEventListener(ENDED, hear);
  return () => {
    told.removeEventListener(ENDED, hear);
  };
}
