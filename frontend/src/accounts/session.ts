/** Who is signed in. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { wipeUnsent } from "../design/unsent";

export type Session = Schemas["Session"];
export type Me = Schemas["Me"];
const KEY = ["session"];

export function useSession() {
  return useQuery({
    queryKey: KEY,
    queryFn: () => answer<Session>(api.GET("/api/session")),
    staleTime: 60_000,
  });
}

/** Whether she who is signed in crochets with her left hand: figures, ladders and charts are mirrored for her. */
export function useLeftHanded(): boolean {
  return useSession().data?.me?.left_handed ?? false;
}

type Change =
  | { do: "in"; username: string; password: string }
  | { do: "up"; username: string; password: string; studio: string }
  | { do: "out" }
  | { do: "password"; present: string; next: string }
  | { do: "address"; present: string; address: string }
  | { do: "new-password"; user: string; token: string; password: string }
  | { do: "preferences"; studio: string; terms: Me["terms"]; left_handed: boolean };

function ask(change: Change): Promise<Session> {
  switch (change.do) {
    case "in":
      return answer(
        api.POST("/api/session", { body: { username: change.username, password: change.password } }),
      );
    case "up":
      return answer(
        api.POST("/api/accounts", {
          body: { username: change.username, password: change.password, studio: change.studio },
        }),
      );
    case "out":
      return answer(api.DELETE("/api/session"));
    case "password":
      return answer(
        api.PUT("/api/session/password", { body: { present: change.present, next: change.next } }),
      );
    case "address":
      return answer(
        api.PUT("/api/session/address", { body: { present: change.present, address: change.address } }),
      );
    case "new-password":
      return answer(
        api.POST("/api/session/new-password", {
          body: { user: change.user, token: change.token, password: change.password },
        }),
      );
    case "preferences":
      return answer(
        api.PUT("/api/session/preferences", {
          body: { studio: change.studio, terms: change.terms, left_handed: change.left_handed },
        }),
      );
  }
}

export function useAccount() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ask,
    onSuccess: (session, change) => {
      if (change.do === "out") {
        wipeUnsent();
        queries.removeQueries({ predicate: (query) => query.queryKey[0] !== KEY[0] });
      }
      queries.setQueryData(KEY, session);
    },
  });
}

/** Have a letter sent for a forgotten password. */
export function askForLetter(username: string): Promise<unknown> {
  return answer(api.POST("/api/session/forgotten", { body: { username } }));
}
