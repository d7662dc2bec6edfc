/** The yarn basket: read together, changed one by one. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

export type Basket = Schemas["Basket"];
export type Yarn = Schemas["YarnOut"];
export type YarnIn = Schemas["YarnIn"];
export type Swatch = Schemas["SwatchOut"];
export type SwatchIn = Schemas["SwatchIn"];

export function useBasket() {
  return useQuery({
    queryKey: ["basket"],
    queryFn: () => answer<Basket>(api.GET("/api/yarns")),
    staleTime: 30_000,
  });
}

type Change =
  | { do: "add"; yarn: YarnIn }
  | { do: "change"; id: number; yarn: YarnIn }
  | { do: "remove"; id: number }
  | { do: "swatch"; swatch: SwatchIn }
  | { do: "remove-swatch"; id: number };

async function ask(change: Change): Promise<void> {
  switch (change.do) {
    case "add":
      await answer(api.POST("/api/yarns", { body: change.yarn }));
      return;
    case "change":
      await answer(
        api.PUT("/api/yarns/{yarn_id}", { params: { path: { yarn_id: change.id } }, body: change.yarn }),
      );
      return;
    case "remove":
      await answer(api.DELETE("/api/yarns/{yarn_id}", { params: { path: { yarn_id: change.id } } }));
      return;
    case "swatch":
      await answer(api.POST("/api/yarns/swatches", { body: change.swatch }));
      return;
    case "remove-swatch":
      await answer(
        api.DELETE("/api/yarns/swatches/{swatch_id}", { params: { path: { swatch_id: change.id } } }),
      );
  }
}

export function useChangeBasket() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ask,
    onSuccess: () => queries.invalidateQueries({ queryKey: ["basket"] }),
  });
}
