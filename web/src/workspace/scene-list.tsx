import { ask } from "../api/ask";
import { Box, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";

import { api } from "../api/client";
import type { SceneState } from "../api/types";
import { Deed } from "../ui/pill";
import { dayText } from "../units/display";
import { Problem } from "../ui/problem";

/** Nine tomorrow morning, by the clock of the room. */
function tomorrow(): string {
  const day = new Date(Date.now() + 24 * 3600_000);
  const two = (part: number) => String(part).padStart(2, "0");
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}T09:00:00`;
}

async function bring(text: string): Promise<SceneState> {
  return ask(
    api.POST("/api/scenes", {
      body: text as unknown as Record<string, never>,
      bodySerializer: () => text,
      headers: { "Content-Type": "application/json" },
    }),
  );
}

/** All scenes of the person, and the way to bring one in from a file. */
export function SceneList() {
  const go = useNavigate();
  const queries = useQueryClient();
  const picker = useRef<HTMLInputElement>(null);
  const scenes = useQuery({
    queryKey: ["scenes"],
    queryFn: () => ask(api.GET("/api/scenes")),
  });
  const bringing = useMutation({
    mutationFn: async (file: File) => bring(await file.text()),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["scenes"] });
      await go(`/scenes/${made.id}/pours`);
    },
  });
  const [name, setName] = useState("");
  const beginning = useMutation({
    mutationFn: () => ask(api.POST("/api/scenes/blank", { body: { name, first_pour_at: tomorrow() } })),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["scenes"] });
      await go(`/scenes/${made.id}/tank`);
    },
  });
  return (
    <Box as="main" maxWidth="720px" margin="0 auto" padding="48px 24px">
      <Heading as="h1" fontSize="34px" fontWeight={800} letterSpacing="0.01em">
        Gondola
      </Heading>
      <Box color="soft" fontSize="17px" marginBottom="8">
        What will happen when a deep scene is cast in clear resin.
      </Box>
      <Problem>{scenes.error?.message}</Problem>
      {scenes.isPending ? <Box color="soft">Looking for your scenes ...</Box> : null}
      <Box as="ul" listStyleType="none" padding="0" margin="0">
        {scenes.data?.map((scene) => (
          <Box as="li" key={scene.id} borderTop="1px solid" borderColor="hair" paddingY="3">
            <Flex justify="space-between" align="baseline">
              <Box asChild fontSize="20px" fontWeight={700} color="depth">
                <Link to={`/scenes/${scene.id}/pours`}>{scene.name}</Link>
              </Box>
              <Box color="soft" fontStyle="italic">
                revision {scene.revision}, {dayText(scene.changed_at)}
              </Box>
            </Flex>
          </Box>
        ))}
      </Box>
      {scenes.data?.length === 0 ? <Box color="soft">No scene yet.</Box> : null}
      <Box borderTop="1px solid" borderColor="hair" paddingTop="5">
        <input
          ref={picker}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="Scene file"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) bringing.mutate(file);
            event.target.value = "";
          }}
        />
        <Flex asChild gap="3" marginBottom="4" align="center">
          <form
            onSubmit={(event) => {
              event.preventDefault();
              beginning.mutate();
            }}
          >
            <Box
              asChild
              border="1px solid"
              borderColor="hair"
              bg="plot"
              padding="5px 10px"
              width="280px"
              fontSize="16px"
            >
              <input
                aria-label="Name of a new scene"
                placeholder="name of a new scene"
                maxLength={80}
                value={name}
                onChange={(event) => {
                  setName(event.target.value);
                }}
              />
            </Box>
            <Deed type="submit" loading={beginning.isPending}>
              Begin it
            </Deed>
          </form>
        </Flex>
        <Problem>{beginning.error?.message}</Problem>
        <Deed onClick={() => picker.current?.click()} loading={bringing.isPending}>
          Bring in a scene file
        </Deed>
        {bringing.error ? (
          <Problem marginTop="3" maxWidth="60ch">
            {bringing.error.message} Nothing was added.
          </Problem>
        ) : null}
      </Box>
    </Box>
  );
}
