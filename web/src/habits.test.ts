/** Habits of the front end: no circles among files, each room only downward, lines that can be read. */
import { describe, expect, it } from "vitest";

const FILES = import.meta.glob<string>(["./**/*.ts", "./**/*.tsx", "!./api/schema.d.ts"], {
  query: "?raw",
  import: "default",
  eager: true,
});
const OWN = Object.keys(FILES).filter((name) => !/\.test\.tsx?$|testing\//.test(name));

function resolved(from: string, to: string): string | undefined {
  const parts = from.split("/").slice(0, -1);
  for (const part of to.split("/")) {
    if (part === "..") parts.pop();
    else if (part !== ".") parts.push(part);
  }
  const base = parts.join("/");
  return [base, `${base}.ts`, `${base}.tsx`, `${base}/index.ts`].find((name) => name in FILES);
}

function importsOf(name: string): string[] {
  const text = FILES[name] ?? "";
  return [...text.matchAll(/(?:from|import\() ?"(\.[^"]+)"/g)].flatMap((found) => resolved(name, found[1] ?? "") ?? []);
}

describe("the front end", () => {
  it("has no circle among its files", () => {
    const state = new Map<string, "open" | "done">();
    const circles: string[] = [];
    const visit = (name: string, way: string[]) => {
      if (state.get(name) === "done") return;
      if (state.get(name) === "open") {
        circles.push([...way.slice(way.indexOf(name)), name].join(" > "));
        return;
      }
      state.set(name, "open");
      for (const next of importsOf(name)) visit(next, [...way, name]);
      state.set(name, "done");
    };
    for (const name of OWN) visit(name, []);
    expect(circles).toEqual([]);
    expect(OWN.length).toBeGreaterThan(90);
  });
  it("has features that import no feature", () => {
    const feature = (name: string) => /^\.\/features\/([^/]+)\//.exec(name)?.[1];
    const across = OWN.flatMap((name) =>
      importsOf(name)
        .filter((to) => feature(name) && feature(to) && feature(name) !== feature(to))
        .map((to) => `${name} > ${to}`),
    );
    expect(across).toEqual([]);
  });
  it("asks the server in one way", () => {
    const apart = OWN.filter((name) => /throw refused\(/.test(FILES[name] ?? "") && name !== "./api/ask.ts");
    expect(apart).toEqual([]);
  });
  it("decides nothing on English words of the outcome", () => {
    const words = /\.(joint|seen|behaves|name|sentence|title)\.(startsWith|includes)\(/;
    expect(OWN.filter((name) => words.test(FILES[name] ?? ""))).toEqual([]);
  });
});
