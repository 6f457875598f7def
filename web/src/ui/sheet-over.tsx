import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef } from "react";

/** A small sheet over the page; Escape or a press beside it puts it away. */
export function SheetOver(props: { label: string; close: () => void; children: ReactNode }) {
  const box = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = box.current;
    if (!dialog) return;
    // a page without dialogs of its own (a test) shows it in place
    if (typeof dialog.showModal === "function") dialog.showModal();
    else dialog.setAttribute("open", "");
  }, []);
  return (
    <Box
      asChild
      width="min(620px, calc(100vw - 32px))"
      marginX="auto"
      marginTop="12vh"
      padding="18px 22px"
      bg="paper"
      color="ink"
      border="1px solid"
      borderColor="ink"
    >
      <dialog
        ref={box}
        aria-label={props.label}
        onClose={props.close}
        onClick={(event) => {
          if (event.target === event.currentTarget) props.close();
        }}
      >
        {props.children}
      </dialog>
    </Box>
  );
}
