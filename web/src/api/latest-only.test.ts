import { describe, expect, it } from "vitest";

import { LatestOnly } from "./latest-only";

function held() {
  const waiting: { question: number; answer: (value: string) => void; fail: (e: Error) => void }[] = [];
  const run = (question: number) => new Promise<string>((answer, fail) => waiting.push({ question, answer, fail }));
  return { waiting, run };
}

describe("LatestOnly", () => {
  it("asks one at a time and skips what was overtaken", async () => {
    const { waiting, run } = held();
    const told: [string, number][] = [];
    const line = new LatestOnly(
      run,
      (answer, question) => told.push([answer, question]),
      () => undefined,
    );
    for (const n of [1, 2, 3, 4]) line.ask(n);
    expect(waiting.map((one) => one.question)).toEqual([1]);
    waiting[0]?.answer("one");
    await Promise.resolve();
    await Promise.resolve();
    expect(waiting.map((one) => one.question)).toEqual([1, 4]);
    waiting[1]?.answer("four");
    await new Promise((done) => setTimeout(done));
    expect(told).toEqual([
      ["one", 1],
      ["four", 4],
    ]);
    expect(line.busy).toBe(false);
  });

  it("goes on after a failure", async () => {
    const { waiting, run } = held();
    const failed: number[] = [];
    const told: number[] = [];
    const line = new LatestOnly(
      run,
      (_, n) => told.push(n),
      (_, n) => failed.push(n),
    );
    line.ask(1);
    line.ask(2);
    waiting[0]?.fail(new Error("no"));
    await new Promise((done) => setTimeout(done));
    waiting[1]?.answer("yes");
    await new Promise((done) => setTimeout(done));
    expect([failed, told]).toEqual([[1], [2]]);
  });
});
