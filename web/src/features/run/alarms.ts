import { useEffect, useRef } from "react";

/** Keeps the screen awake while a page is shown, where the browser can. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = () => {
      if (!("wakeLock" in navigator) || document.visibilityState !== "visible") return;
      navigator.wakeLock
        .request("screen")
        .then((one) => {
          if (over) void one.release();
          else lock = one;
        })
        .catch(() => {
          // a browser may refuse, as on an empty battery; nothing depends on it
        });
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, []);
}

/** Says a sentence and sounds a note, once for each thing that is due. */
export function useAlarm(due: string | null, loud: boolean): void {
  const said = useRef<string | null>(null);
  useEffect(() => {
    if (due === null) {
      said.current = null;
      return;
    }
    if (!loud || said.current === due) return;
    said.current = due;
    sound();
    if ("speechSynthesis" in window) window.speechSynthesis.speak(new SpeechSynthesisUtterance(due));
  }, [due, loud]);
}

function sound(): void {
  if (typeof AudioContext === "undefined") return;
  const audio = new AudioContext();
  const note = audio.createOscillator();
  const level = audio.createGain();
  note.frequency.value = 660;
  level.gain.setValueAtTime(0.25, audio.currentTime);
  level.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.9);
  note.connect(level).connect(audio.destination);
  note.start();
  note.stop(audio.currentTime + 0.9);
  note.onended = () => void audio.close();
}

/** Page keys and a foot pedal: on, back. Not while something is typed. */
export function useKeys(on: () => void, back: () => void): void {
  const hands = useRef({ on, back });
  useEffect(() => {
    hands.current = { on, back };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement) {
        if (event.key !== "PageDown" && event.key !== "PageUp") return;
      }
      if (event.key === "PageDown" || event.key === "ArrowRight") hands.current.on();
      else if (event.key === "PageUp" || event.key === "ArrowLeft") hands.current.back();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener("keydown", press);
    };
  }, []);
}

/** Keeps the page of a run on the device, also where one came to it without a reload. */
export function useKeptPage(): void {
  useEffect(() => {
    if (typeof caches === "undefined" || !navigator.serviceWorker?.controller) return;
    fetch(window.location.href)
      .then(async (page) => {
        if (page.ok) await (await caches.open("run-page")).put("/runs/", page);
      })
      .catch(() => {
        // without a connection it is there already, or it is not to be had
      });
  }, []);
}
