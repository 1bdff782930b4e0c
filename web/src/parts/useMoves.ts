import { useQuery } from "@tanstack/react-query";
import { api, type Moving } from "../api/client";

/** The ways of moving; undefined until they are there. */
export function useMoves(): Moving[] | undefined {
  return useQuery({ queryKey: ["moves"], queryFn: api.moves, staleTime: Infinity }).data;
}
