import { useQuery } from "@tanstack/react-query";
import { type Moving } from "../api/client";
import { question } from "../api/queries";

/** The ways of moving; undefined until they are there. */
export function useMoves(): Moving[] | undefined {
  return useQuery(question.moves()).data;
}
