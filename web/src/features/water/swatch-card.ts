import type { PaintAnswer } from "../../api/types";

const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

/** A small card to print or keep: the paint, how it reads, and what was wished. */
export function swatchCard(name: string, answer: PaintAnswer): string {
  const chips: [string, string][] = [
    ["paint", answer.paint_srgb],
    ["reads as", answer.reads_srgb],
    ["wished", answer.wished_srgb],
    ["white reads as", answer.white_reads_srgb],
  ];
  const drawn = chips
    .map(
      ([word, colour], index) =>
        `<rect x="${4 + index * 24}" y="12" width="22" height="22" fill="${colour}" stroke="#999" stroke-width="0.2"/><text x="${4 + index * 24}" y="38.5" font-size="3.4">${word}</text><text x="${4 + index * 24}" y="42.5" font-size="3.2" font-style="italic">${colour}</text>`,
    )
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="104mm" height="52mm" viewBox="0 0 104 52" font-family="sans-serif"><rect width="104" height="52" fill="#ffffff"/><text x="4" y="8" font-size="5" font-weight="700">${escaped(name)}</text>${drawn}<text x="4" y="49" font-size="3">off by ${answer.gap_de00.toFixed(1)}; computed for daylight, check on a test piece</text></svg>`;
}
