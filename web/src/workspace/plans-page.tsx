import { Box, Flex } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";

import { ask } from "../api/ask";
import { api, readIn } from "../api/client";
import type { Scene } from "../api/types";
import { Plans } from "../features/plans";
import { Problem } from "../ui/problem";
import { HomeLink } from "./home-link";

/** Plans of one scene side by side. */
export default function PlansPage() {
  const id = Number(useParams().sceneId);
  const go = useNavigate();
  const params = { path: { scene_id: id } };
  const first = useQuery({
    queryKey: ["plans of", id],
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}", { params })),
  });
  const taking = useMutation({
    mutationFn: ({ scene, name }: { scene: Scene; name: string }) =>
      ask(
        api.PUT("/api/scenes/{scene_id}", {
          params,
          body: { base_revision: first.data?.revision ?? 0, note: `plan: ${name}`, document: scene },
        }),
      ),
    onSuccess: () => go(`/scenes/${id}/pours`),
  });
  if (!first.data) {
    return (
      <Box padding="12" color="soft">
        {first.error ? <Box role="alert">{first.error.message}</Box> : "Unrolling the sheet ..."}
      </Box>
    );
  }
  const { document } = first.data;
  readIn(document.brief.units ?? {});
  return (
    <Box as="main" paddingX="20px" paddingBottom="16px">
      <Flex
        as="header"
        align="center"
        minHeight="52px"
        gap="3"
        borderBottom="1px solid"
        borderColor="hair"
        marginBottom="12px"
        wrap="wrap"
      >
        <HomeLink />
        <Box as="h1" fontSize="17px" fontWeight={500}>
          {document.name}
          <Box as="span" color="soft">
            {" "}
            plans side by side
          </Box>
        </Box>
        <Box asChild marginLeft="auto" color="depth" _hover={{ textDecoration: "underline" }}>
          <Link to={`/scenes/${id}/pours`}>back to the sheet</Link>
        </Box>
      </Flex>
      <Problem>{taking.error?.message}</Problem>
      <Plans
        id={id}
        scene={document}
        take={(scene, name) => {
          taking.mutate({ scene, name });
        }}
      />
    </Box>
  );
}
