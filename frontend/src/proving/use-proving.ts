/** Makings, tests, letters and commissions of a design, and what is done with them. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

export type Makings = Schemas["Makings"];
export type Summary = Makings["makings"][number];
export type Tests = Schemas["Tests"];
export type Call = Tests["calls"][number];
export type Commission = Schemas["CommissionOut"];

const AGAIN_MS = 2_000;

const path = (design: number) => ({ params: { path: { design_id: design } } });
const under = <K extends string, V>(design: number, key: K, value: V) => ({
  params: { path: { design_id: design, [key]: value } as { design_id: number } & Record<K, V> },
});

export function useMakings(design: number) {
  return useQuery({
    queryKey: ["makings", design],
    queryFn: () => answer<Makings>(api.GET("/api/designs/{design_id}/makings", path(design))),
    // Testers, and the phone, write while nobody looks.
    refetchOnWindowFocus: true,
    refetchOnMount: "always",
  });
}

export function useMakingActs(design: number) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: ["makings", design] });
  const put = (found: Makings) => queries.setQueryData(["makings", design], found);
  const begin = useMutation({
    mutationFn: (body: Schemas["MakingIn"]) =>
      answer<Summary>(api.POST("/api/designs/{design_id}/makings", { ...path(design), body })),
    onSuccess: again,
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      answer<Makings>(
        api.DELETE("/api/designs/{design_id}/makings/{making_id}", under(design, "making_id", id)),
      ),
    onSuccess: put,
  });
  const decide = useMutation({
    mutationFn: ({
      id,
      key,
      verdict,
    }: {
      id: string;
      key: string;
      verdict: Schemas["VerdictIn"]["verdict"];
    }) =>
      answer<Makings>(
        api.PUT("/api/designs/{design_id}/makings/{making_id}/deviations/{deviation}", {
          params: { path: { design_id: design, making_id: id, deviation: key } },
          body: { verdict },
        }),
      ),
    onSuccess: (found) => {
      put(found);
      queries.invalidateQueries({ queryKey: ["design", design] });
    },
  });
  const sample = useMutation({
    mutationFn: (id: string) =>
      answer<Schemas["SampleKept"]>(
        api.POST("/api/designs/{design_id}/makings/{making_id}/sample", under(design, "making_id", id)),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["basket"] }),
  });
  const print = useMutation({
    mutationFn: (quantity: Schemas["PrintSize"]["quantity"]) =>
      answer<Makings>(
        api.POST("/api/designs/{design_id}/makings/size", { ...path(design), body: { quantity } }),
      ),
    onSuccess: (found) => {
      put(found);
      queries.invalidateQueries({ queryKey: ["design", design] });
    },
  });
  return { begin, remove, decide, sample, print };
}

/** The parts in which something was done otherwise, as written and as made; asked for again until both have settled. */
export function useAsMade(design: number, making: string, wanted: boolean) {
  const at = under(design, "making_id", making);
  const path = "/api/designs/{design_id}/makings/{making_id}/as-made";
  return useQuery({
    queryKey: ["as-made", design, making],
    enabled: wanted,
    queryFn: async () => {
      const now = await answer<Schemas["BothFigures"]>(api.GET(path, at));
      if (now.says.whole && now.did.whole) return now;
      return answer<Schemas["BothFigures"]>(api.POST(path, at));
    },
    refetchInterval: (query) =>
      query.state.data?.says.whole && query.state.data.did.whole ? false : AGAIN_MS,
  });
}

export function useTests(design: number) {
  return useQuery({
    queryKey: ["tests", design],
    queryFn: () => answer<Tests>(api.GET("/api/designs/{design_id}/tests", path(design))),
    // Testers, and the phone, write while nobody looks.
    refetchOnWindowFocus: true,
    refetchOnMount: "always",
  });
}

export function useTestActs(design: number) {
  const queries = useQueryClient();
  const put = (found: Tests) => queries.setQueryData(["tests", design], found);
  const again = () => queries.invalidateQueries({ queryKey: ["tests", design] });
  const call = useMutation({
    mutationFn: (body: Schemas["CallIn"]) =>
      answer<Tests>(api.POST("/api/designs/{design_id}/tests", { ...path(design), body })),
    onSuccess: put,
  });
  const removeCall = useMutation({
    mutationFn: (id: number) =>
      answer<Tests>(api.DELETE("/api/designs/{design_id}/tests/{call_id}", under(design, "call_id", id))),
    onSuccess: put,
  });
  const invite = useMutation({
    mutationFn: ({ id, ...body }: { id: number; name: string; mail: string }) =>
      answer<Schemas["InvitedOut"]>(
        api.POST("/api/designs/{design_id}/tests/{call_id}/testers", {
          ...under(design, "call_id", id),
          body,
        }),
      ),
    onSuccess: again,
  });
  const renew = useMutation({
    mutationFn: (id: string) =>
      answer<Schemas["InvitedOut"]>(
        api.POST("/api/designs/{design_id}/testers/{tester_id}/link", under(design, "tester_id", id)),
      ),
    onSuccess: again,
  });
  const close = useMutation({
    mutationFn: (id: string) =>
      answer<Tests>(
        api.DELETE("/api/designs/{design_id}/testers/{tester_id}/link", under(design, "tester_id", id)),
      ),
    onSuccess: put,
  });
  const reply = useMutation({
    mutationFn: (body: Schemas["AnswerIn"]) =>
      answer<Tests>(api.POST("/api/designs/{design_id}/tests/answers", { ...path(design), body })),
    onSuccess: put,
  });
  const papers = useMutation({
    mutationFn: ({ id, text }: { id: number; text: string }) =>
      answer<Schemas["PapersOut"]>(
        api.POST("/api/designs/{design_id}/tests/{call_id}/papers", {
          ...under(design, "call_id", id),
          body: { text },
        }),
      ),
    onSuccess: again,
  });
  const thank = useMutation({
    mutationFn: (id: number) =>
      answer<Schemas["DesignOut"]>(
        api.POST("/api/designs/{design_id}/tests/{call_id}/thanks", under(design, "call_id", id)),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["design", design] }),
  });
  return { call, removeCall, invite, renew, close, reply, papers, thank };
}

export function useLetters(design: number) {
  const queries = useQueryClient();
  const key = ["letters", design];
  const list = useQuery({
    queryKey: key,
    queryFn: () => answer<Schemas["Letters"]>(api.GET("/api/designs/{design_id}/letters", path(design))),
  });
  const put = (found: Schemas["Letters"]) => queries.setQueryData(key, found);
  const send = useMutation({
    mutationFn: (body: Schemas["LetterIn"]) =>
      answer<Schemas["Letters"]>(api.POST("/api/designs/{design_id}/letters", { ...path(design), body })),
    onSuccess: put,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answer<Schemas["Letters"]>(
        api.DELETE("/api/designs/{design_id}/letters/{letter_id}", under(design, "letter_id", id)),
      ),
    onSuccess: put,
  });
  return { list, send, remove };
}

export function useCommissions(design: number) {
  const queries = useQueryClient();
  const key = ["commissions", design];
  type All = Schemas["Commissions"];
  const list = useQuery({
    queryKey: key,
    queryFn: () => answer<All>(api.GET("/api/designs/{design_id}/commissions", path(design))),
    // Testers, and the phone, write while nobody looks.
    refetchOnWindowFocus: true,
    refetchOnMount: "always",
  });
  const put = (found: All) => queries.setQueryData(key, found);
  const again = () => queries.invalidateQueries({ queryKey: key });
  const at = (id: number) => under(design, "commission_id", id);
  const take = useMutation({
    mutationFn: (body: Schemas["CommissionIn"]) =>
      answer<All>(api.POST("/api/designs/{design_id}/commissions", { ...path(design), body })),
    onSuccess: put,
  });
  const change = useMutation({
    mutationFn: ({ id, body }: { id: number; body: Schemas["CommissionIn"] }) =>
      answer<All>(api.PUT("/api/designs/{design_id}/commissions/{commission_id}", { ...at(id), body })),
    onSuccess: put,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answer<All>(api.DELETE("/api/designs/{design_id}/commissions/{commission_id}", at(id))),
    onSuccess: put,
  });
  const link = useMutation({
    mutationFn: (id: number) =>
      answer<Schemas["ClientLink"]>(
        api.POST("/api/designs/{design_id}/commissions/{commission_id}/link", at(id)),
      ),
    onSuccess: again,
  });
  const withdraw = useMutation({
    mutationFn: (id: number) =>
      answer<All>(api.DELETE("/api/designs/{design_id}/commissions/{commission_id}/link", at(id))),
    onSuccess: put,
  });
  const show = useMutation({
    mutationFn: ({ id, pictures }: { id: number; pictures: Schemas["ShownIn"][] }) =>
      answer<All>(
        api.PUT("/api/designs/{design_id}/commissions/{commission_id}/pictures", {
          ...at(id),
          body: { pictures },
        }),
      ),
    onSuccess: put,
  });
  const ask = useMutation({
    mutationFn: ({ id, text, price }: { id: number; text: string; price: number }) =>
      answer<All>(
        api.POST("/api/designs/{design_id}/commissions/{commission_id}/agreements", {
          ...at(id),
          body: { text, price },
        }),
      ),
    onSuccess: put,
  });
  const takeBack = useMutation({
    mutationFn: ({ id, agreement }: { id: number; agreement: string }) =>
      answer<All>(
        api.DELETE("/api/designs/{design_id}/commissions/{commission_id}/agreements/{agreement_id}", {
          params: { path: { design_id: design, commission_id: id, agreement_id: agreement } },
        }),
      ),
    onSuccess: put,
  });
  return { list, take, change, remove, link, withdraw, show, ask, takeBack };
}
