/** Her studio as a whole: what it holds, where it is open, whether it closes. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

export type StudioState = Schemas["StudioState"];
const KEY = ["studio"];

type Change =
  | { do: "end"; id: string }
  | { do: "end-others" }
  | { do: "leave"; present: string }
  | { do: "stay" };

function ask(change: Change): Promise<StudioState> {
  switch (change.do) {
    case "end":
      return answer(
        api.DELETE("/api/studio/sessions/{session_id}", { params: { path: { session_id: change.id } } }),
      );
    case "end-others":
      return answer(api.DELETE("/api/studio/sessions"));
    case "leave":
      return answer(api.POST("/api/studio/leave", { body: { present: change.present } }));
    case "stay":
      return answer(api.DELETE("/api/studio/leave"));
  }
}

export function useStudio() {
  return useQuery({ queryKey: KEY, queryFn: () => answer<StudioState>(api.GET("/api/studio")) });
}

export function useStudioChange() {
  const queries = useQueryClient();
  return useMutation({ mutationFn: ask, onSuccess: (state) => queries.setQueryData(KEY, state) });
}
