import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, fireEvent, render, renderHook, screen, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";

import type { Scene } from "../api/types";
import { useChoice } from "../desk/choice";
import type { SceneWork } from "../desk/use-scene";
import { useTrial } from "../desk/use-trial";
import { Flags } from "../features/flags";
import { PourInspector } from "../features/pours";
import { Profiles, ProfileTables } from "../features/profiles";
import { Ribbon } from "../features/ribbon";
import { Gondola, LayerLines, Plan, TankSection } from "../features/section";
import { Axis, FRAME, OUTCOME, SCENE, serve } from "../testing/desk";
import { system } from "../theme";
import { Desk } from "./desk";

/** Components that were drawn, by what each asks of the desk. */
const { drawn, noted } = vi.hoisted(() => {
  const names: string[] = [];
  const note = () => {
    const lines = new Error().stack?.split("\n") ?? [];
    const caller = lines
      .map((line) => /at (?:Object\.)?([A-Z]\w+) \(.*src/.exec(line)?.[1])
      .find((name) => name && name !== "Error");
    if (caller) names.push(caller);
  };
  const wrap =
    <T,>(hook: () => T) =>
    () => {
      note();
      return hook();
    };
  return { drawn: names, noted: wrap };
});
vi.mock("../desk/document", async (original) => {
  const real = await original<typeof import("../desk/document")>();
  return { ...real, useDocument: noted(real.useDocument) };
});
vi.mock("../desk/cursor", async (original) => {
  const real = await original<typeof import("../desk/cursor")>();
  return { ...real, useCursor: noted(real.useCursor) };
});

const workOf = (document = SCENE) => ({ id: 1, document, show: vi.fn(), keep: vi.fn() }) as unknown as SceneWork;

function Laid({ work, children }: { work: SceneWork; children: ReactNode }) {
  const tried = useTrial(work);
  return (
    <Desk work={work} tried={tried} answered={{ outcome: OUTCOME, of: SCENE }}>
      {children}
    </Desk>
  );
}

function lay(children: ReactNode) {
  return render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <Laid work={workOf()}>{children}</Laid>
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
}

describe("the desk", () => {
  it("opens at the hottest place of the pours", () => {
    lay(
      <Axis>
        <Gondola width={800} />
      </Axis>,
    );
    expect(screen.getByRole("slider", { name: "Gondola" })).toHaveAttribute("aria-valuenow", "70");
  });

  it("draws only what reads the cursor when the gondola is moved", () => {
    lay(
      <>
        <Flags />
        <PourInspector more={[]} />
        <ProfileTables />
        <Ribbon />
        <Axis>
          <TankSection frame={FRAME} side={false} picture={null} movable={false} offDisplay />
          <Plan frame={FRAME} movable={false} />
          <LayerLines frame={FRAME} right={800} />
          <Profiles x={0} set="cure" />
          <Profiles x={300} set="water" />
          <Gondola width={800} />
        </Axis>
      </>,
    );
    expect(new Set(drawn).size).toBeGreaterThan(15);
    drawn.length = 0;
    fireEvent.keyDown(screen.getByRole("slider", { name: "Gondola" }), { key: "ArrowDown" });
    expect(screen.getByRole("slider", { name: "Gondola" })).toHaveAttribute("aria-valuenow", "71");
    expect([...new Set(drawn)].sort()).toEqual(["Gondola", "Moment", "Now"]);
  });

  it("keeps the chosen pour within the plan", () => {
    function Chosen() {
      const { pourNumber, choosePour } = useChoice();
      return (
        <button
          onClick={() => {
            choosePour(9);
          }}
        >
          pour {pourNumber}
        </button>
      );
    }
    lay(<Chosen />);
    fireEvent.click(screen.getByRole("button"));
    expect(screen.getByRole("button")).toHaveTextContent("pour 4");
  });
});

describe("a trial", () => {
  const other: Scene = { ...SCENE, name: "tried" };
  const remedy = { label: "seal it", digest: "abc", edits: [{ op: "replace", path: "/bed/sealed", value: true }] };
  const open = async () => {
    const asked = serve({ "POST /api/edits/apply": other, "POST /api/edits/make": remedy });
    const work = workOf();
    const { result } = renderHook(() => useTrial(work));
    act(() => {
      result.current.tryOut(remedy, OUTCOME);
    });
    await waitFor(() => {
      expect(result.current.trial).not.toBeNull();
    });
    return { asked, work, result };
  };
  it("is a document of its own, made by the core from the one that is shown", async () => {
    const { asked, work, result } = await open();
    expect(asked[0]?.body).toMatchObject({ digest: "abc", operations: remedy.edits });
    expect(result.current.shown).toEqual(other);
    expect(work.keep).not.toHaveBeenCalled();
  });
  it("takes the edits that are made while it is open, and none reaches the scene", async () => {
    const { work, result } = await open();
    const edited = { ...other, name: "changed" };
    act(() => {
      result.current.keep(edited, "name");
    });
    expect(result.current.trial).toMatchObject({ document: edited, edited: true, label: "seal it" });
    act(() => {
      result.current.show({ ...edited, name: "dragged" });
    });
    expect(result.current.shown.name).toBe("dragged");
    expect(work.keep).not.toHaveBeenCalled();
    expect(work.show).not.toHaveBeenCalled();
  });
  it("is kept as it stands, or dropped", async () => {
    const { work, result } = await open();
    act(() => {
      result.current.endTrial(true);
    });
    expect(work.keep).toHaveBeenCalledWith(other, "seal it");
    const again = await open();
    act(() => {
      again.result.current.endTrial(false);
    });
    expect(again.work.keep).not.toHaveBeenCalled();
    expect(again.result.current.shown).toBe(SCENE);
  });
  it("takes another remedy on what is tried, and compares with what stood before", async () => {
    const { asked, result } = await open();
    act(() => {
      result.current.tryOut({ ...remedy, label: "two pours" }, { ...OUTCOME, grade: "fine" });
    });
    await waitFor(() => {
      expect(result.current.trial?.label).toBe("two pours");
    });
    expect((asked.at(-1)?.body as { scene: Scene }).scene.name).toBe("tried");
    expect(result.current.trial?.before).toBe(OUTCOME);
  });
  it("says what no longer fits", async () => {
    serve({});
    const { result } = renderHook(() => useTrial(workOf()));
    act(() => {
      result.current.tryOut(remedy, OUTCOME);
    });
    await waitFor(() => {
      expect(result.current.refusal).toContain("Nothing answers");
    });
    expect(result.current.trial).toBeNull();
  });
  it("asks the core for a change and keeps it under its own words", async () => {
    const asked = serve({ "POST /api/edits/make": remedy, "POST /api/edits/apply": other });
    const work = workOf();
    const { result } = renderHook(() => useTrial(work));
    act(() => {
      result.current.change({ kind: "take_pour_out", number: 2 });
    });
    await waitFor(() => {
      expect(work.keep).toHaveBeenCalledWith(other, "seal it");
    });
    expect(asked[0]?.body).toMatchObject({ change: { kind: "take_pour_out", number: 2 } });
  });
});
