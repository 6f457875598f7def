import { Box } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { ShoppingList, StockState, Units } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { areaText, massText, volumeText } from "../../units/display";
import { KitList } from "./kits";

type Line = ShoppingList["shopping"]["lines"][number];

/** What the plan needs against the shelf: what is there is typed in its row, what is missing is bought. */
export function StockPart() {
  const { work, units } = useDocument();
  const queries = useQueryClient();
  const params = { path: { scene_id: work.id } };
  const list = useQuery({
    queryKey: ["shopping", work.id, work.document],
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/shopping", { params })),
  });
  const shelf = useQuery({ queryKey: ["stock"], staleTime: 0, queryFn: () => ask(api.GET("/api/stock")) });
  const count = useMutation({
    mutationFn: (stock: StockState) =>
      ask(api.PUT("/api/stock", { body: { currency: stock.currency, held: stock.held, kits: stock.kits } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["stock"] });
      await queries.invalidateQueries({ queryKey: ["shopping"] });
    },
  });
  if (list.error ?? shelf.error) return <Problem>{(list.error ?? shelf.error)?.message}</Problem>;
  if (!list.data || !shelf.data) return <Box color="soft">Counting ...</Box>;
  const { shopping, currency } = list.data;
  const stock = shelf.data;
  const money = (amount: number) => `${amount.toFixed(2)} ${currency}`;
  return (
    <>
      <Title aside={<a href={`/api/scenes/${work.id}/shopping.csv`}>as CSV</a>}>What it takes</Title>
      <LeftOut
        words={stock.refused}
        counted={() => {
          count.mutate(stock);
        }}
      />
      <Box as="table" width="100%" fontSize="14px" style={{ borderCollapse: "collapse" }}>
        <thead>
          <tr style={{ color: "var(--soft)", textAlign: "left" }}>
            <th style={{ fontWeight: 400 }}>what</th>
            <th style={{ fontWeight: 400, textAlign: "right", paddingLeft: "8px" }}>needed</th>
            <th style={{ fontWeight: 400, textAlign: "right", paddingLeft: "8px" }}>there</th>
            <th style={{ fontWeight: 400, textAlign: "right", paddingLeft: "8px" }}>to buy</th>
          </tr>
        </thead>
        <tbody>
          {shopping.lines.map((line) => (
            <OneLine
              key={line.key}
              line={line}
              units={units}
              keep={(amount) => {
                count.mutate(withAmount(stock, line, amount));
              }}
            />
          ))}
        </tbody>
      </Box>
      <Problem>{count.error?.message}</Problem>
      <KitList
        stock={stock}
        resins={work.document.resins.map((one) => [one.id, one.name] as const)}
        chosen={shopping.kits}
        money={money}
        keep={(changed) => {
          count.mutate(changed);
        }}
      />
      <Box marginTop="3" fontWeight={700}>
        To buy: {money(shopping.buy_cost)}. In the piece: {money(shopping.piece_cost)}.
      </Box>
      {shopping.unpriced.length ? (
        <Box color="soft" fontSize="14px">
          Without a price, and not counted: {shopping.unpriced.join(", ")}.
        </Box>
      ) : null}
    </>
  );
}

/** What of the shelf is left out, each with its reason, until it is counted anew. Nothing while there is none. */
function LeftOut({ words, counted }: { words: string[]; counted: () => void }) {
  if (!words.length) return null;
  return (
    <Box marginBottom="2" borderLeft="4px solid" borderColor="watch" paddingLeft="8px">
      <Box as="ul" listStyleType="none" padding="0" margin="0">
        {words.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </Box>
      <Word paddingLeft="0" onClick={counted}>
        count it as it stands below
      </Word>
    </Box>
  );
}

function OneLine({ line, units, keep }: { line: Line; units: Units; keep: (amount: number) => void }) {
  return (
    <tr style={{ borderBottom: "1px solid var(--wash)" }}>
      <td>
        {line.name}
        {line.old ? (
          <Box color="watch" fontSize="13px">
            {line.old}
          </Box>
        ) : null}
      </td>
      <td style={{ textAlign: "right", paddingLeft: "8px" }}>{amountText(line.need, line.unit, units)}</td>
      <td style={{ textAlign: "right", paddingLeft: "8px" }}>
        <input
          key={line.have}
          aria-label={`${line.name}, there`}
          inputMode="decimal"
          defaultValue={String(line.have)}
          style={{
            width: "44px",
            textAlign: "right",
            background: "transparent",
            borderBottom: "1px solid var(--hair)",
          }}
          onBlur={(event) => {
            const amount = Number(event.target.value.replace(",", "."));
            if (Number.isFinite(amount) && amount >= 0 && amount !== line.have) keep(amount);
            else event.target.value = String(line.have);
          }}
        />
      </td>
      <td style={{ textAlign: "right", paddingLeft: "8px", fontWeight: line.missing > 0 ? 800 : 400 }}>
        {line.missing > 0 ? amountText(line.missing, line.unit, units) : "-"}
      </td>
    </tr>
  );
}

function amountText(amount: number, unit: Line["unit"], units: Units): string {
  if (unit === "g") return massText(amount, units);
  if (unit === "ml") return volumeText(amount, units);
  if (unit === "cm2") return areaText(amount, units);
  return unit === "pieces" ? String(amount) : `${amount} ${unit}`;
}

/** The shelf with another amount of one thing; a thing that was not on it is put there. */
export function withAmount(stock: StockState, line: Line, amount: number): StockState {
  const held = stock.held ?? [];
  const known = held.some((one) => one.key === line.key);
  const row = { key: line.key, name: line.name.slice(0, 80), amount, unit: line.unit };
  return {
    ...stock,
    held: known ? held.map((one) => (one.key === line.key ? { ...one, amount } : one)) : [...held, row],
  };
}
