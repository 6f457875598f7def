import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import type { ShoppingList, StockState } from "../../api/types";
import { Pill, Word } from "../../ui/pill";

interface Props {
  stock: StockState;
  resins: readonly (readonly [id: string, name: string])[];
  chosen: ShoppingList["shopping"]["kits"];
  money: (amount: number) => string;
  keep: (stock: StockState) => void;
}

const EMPTY = { name: "", part_a_g: "", part_b_g: "", price: "" };
const FIELDS = [
  ["part_a_g", "part A, g"],
  ["part_b_g", "part B, g"],
  ["price", "price"],
] as const;

/** Kits that can be had, how many of each cost least, and what is left over of them. */
export function KitList({ stock, resins, chosen, money, keep }: Props) {
  const kits = stock.kits ?? [];
  return (
    <Box marginTop="3">
      <Flex justify="space-between" align="baseline">
        <Box fontWeight={800}>Kits</Box>
        <Box as="label" fontSize="14px" color="soft">
          currency{" "}
          <input
            key={stock.currency}
            aria-label="currency"
            defaultValue={stock.currency}
            maxLength={3}
            style={{
              width: "44px",
              textTransform: "uppercase",
              background: "transparent",
              borderBottom: "1px solid var(--hair)",
            }}
            onBlur={(event) => {
              const currency = event.target.value.toUpperCase();
              if (/^[A-Z]{3}$/.test(currency) && currency !== stock.currency) keep({ ...stock, currency });
              else event.target.value = stock.currency ?? "";
            }}
          />
        </Box>
      </Flex>
      {kits.map((kit) => {
        const bought = chosen.find((one) => one.kit_id === kit.id);
        return (
          <Flex key={kit.id} justify="space-between" borderBottom="1px solid" borderColor="wash" gap="2">
            <Box>
              {bought ? <b>{bought.count} x </b> : null}
              {kit.name}, {money(kit.price)}
              {bought ? (
                <Box as="span" color="soft" fontSize="14px">
                  {" "}
                  leaves {bought.left_a_g} g of A, {bought.left_b_g} g of B
                </Box>
              ) : null}
            </Box>
            <Word
              aria-label={`take ${kit.name} off the list`}
              onClick={() => {
                keep({ ...stock, kits: kits.filter((one) => one.id !== kit.id) });
              }}
            >
              take off
            </Word>
          </Flex>
        );
      })}
      <NewKit
        resins={resins}
        add={(kit) => {
          keep({ ...stock, kits: [...kits, { id: freeId(kits.map((one) => one.id)), ...kit }] });
        }}
      />
    </Box>
  );
}

function NewKit({
  resins,
  add,
}: {
  resins: Props["resins"];
  add: (kit: { name: string; resin_id: string; part_a_g: number; part_b_g: number; price: number }) => void;
}) {
  const [typed, setTyped] = useState(EMPTY);
  const [resin, setResin] = useState(resins[0]?.[0] ?? "");
  const number = (text: string) => Number(text.replace(",", "."));
  const whole = typed.name.trim() && FIELDS.every(([field]) => typed[field].trim() && number(typed[field]) >= 0);
  const box = { width: "74px", borderBottom: "1px solid var(--hair)", background: "transparent" };
  return (
    <Flex gap="2" wrap="wrap" align="baseline" marginTop="2" fontSize="14px">
      <input
        aria-label="name of a kit"
        placeholder="a kit"
        value={typed.name}
        style={{ ...box, width: "96px" }}
        onChange={(event) => {
          setTyped({ ...typed, name: event.target.value });
        }}
      />
      <select
        aria-label="resin of the kit"
        value={resin}
        style={{ maxWidth: "120px", background: "transparent" }}
        onChange={(event) => {
          setResin(event.target.value);
        }}
      >
        {resins.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {FIELDS.map(([field, word]) => (
        <input
          key={field}
          aria-label={`${word} of a kit`}
          placeholder={word}
          inputMode="decimal"
          value={typed[field]}
          style={box}
          onChange={(event) => {
            setTyped({ ...typed, [field]: event.target.value });
          }}
        />
      ))}
      <Pill
        disabled={!whole}
        onClick={() => {
          add({
            name: typed.name.trim(),
            resin_id: resin,
            part_a_g: number(typed.part_a_g),
            part_b_g: number(typed.part_b_g),
            price: number(typed.price),
          });
          setTyped(EMPTY);
        }}
      >
        add
      </Pill>
    </Flex>
  );
}

function freeId(taken: readonly string[]): string {
  let at = taken.length + 1;
  while (taken.includes(`kit-${at}`)) at += 1;
  return `kit-${at}`;
}
