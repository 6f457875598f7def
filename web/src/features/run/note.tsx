import { Flex } from "@chakra-ui/react";
import { useState } from "react";

import type { BenchStep } from "../../api/types";
import { Target } from "./parts";
import { event } from "./telling";
import type { FollowedRun } from "./use-run";

/** A few words, kept at their moment. */
export function NoteDown({ run, step, close }: { run: FollowedRun; step: BenchStep | null; close: () => void }) {
  const [text, setText] = useState("");
  return (
    <Flex gap="14px" wrap="wrap" align="stretch">
      <textarea
        aria-label="note"
        autoFocus
        rows={2}
        maxLength={2000}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
        }}
        style={{
          flex: "1 1 320px",
          fontSize: "24px",
          padding: "10px",
          background: "var(--plot)",
          color: "var(--ink)",
          border: "3px solid var(--hair)",
          borderRadius: "12px",
        }}
      />
      <Target
        main
        minHeight="72px"
        disabled={!text.trim()}
        onClick={() => {
          void run.tell([
            event(run.teller, step?.id ?? "", "noted", { text: text.trim(), pour_id: step?.pour_id || null }),
          ]);
          close();
        }}
      >
        keep
      </Target>
      <Target minHeight="72px" onClick={close}>
        not now
      </Target>
    </Flex>
  );
}
