import { QueryClient, QueryClientProvider, useMutation } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { expect, it } from "vitest";
import { type Piece, REMOVING, usePieces } from "./pieces";

it("leaves a piece out while it is being removed, whatever list is read meanwhile", async () => {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  const shelf = [{ id: 1 }, { id: 2 }] as Piece[];
  queries.setQueryData(["pieces"], shelf);
  let done = () => {};
  const removed = new Promise<void>((resolve) => {
    done = resolve;
  });
  const { result } = renderHook(
    () => ({
      pieces: usePieces(),
      remove: useMutation({ mutationKey: REMOVING, mutationFn: (_: number) => removed }),
    }),
    {
      wrapper: ({ children }: { children: ReactNode }) => (
        <QueryClientProvider client={queries}>{children}</QueryClientProvider>
      ),
    },
  );
  const ids = () => result.current.pieces.data?.map((piece) => piece.id);
  expect(ids()).toEqual([1, 2]);
  act(() => result.current.remove.mutate(1));
  await waitFor(() => expect(ids()).toEqual([2]));
  act(() => {
    queries.setQueryData(["pieces"], [...shelf, { id: 3 } as Piece]);
  });
  await waitFor(() => expect(ids()).toEqual([2, 3]));
  act(() => {
    queries.setQueryData(["pieces"], [{ id: 2 }, { id: 3 }] as Piece[]);
    done();
  });
  await waitFor(() => expect(result.current.remove.isPending).toBe(false));
  expect(ids()).toEqual([2, 3]);
});
