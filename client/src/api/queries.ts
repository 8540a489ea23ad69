import { useQuery } from "@tanstack/react-query";

import { api, csrfToken, Refused, taken, type Draft, type Problem, type Report } from "./client";

export interface Session {
  name: string | null;
  demo: boolean;
}

async function session(method: "GET" | "POST" | "DELETE", body?: object): Promise<Session> {
  const init: RequestInit = { method, headers: { "X-CSRFToken": csrfToken(), "Content-Type": "application/json" } };
  if (body) init.body = JSON.stringify(body);
  const answer = await fetch("/api/session", init);
  const sent = (await answer.json()) as Session & { problems?: Problem[] };
  if (!answer.ok) throw new Refused(answer.status, sent.problems ?? []);
  return sent;
}

export const signIn = (name: string, password: string) => session("POST", { name, password });
export const signOut = () => session("DELETE");
export const useSession = () => useQuery({ queryKey: ["session"], queryFn: () => session("GET"), staleTime: Infinity });

export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: () => taken(api.GET("/api/catalogue")), staleTime: Infinity });

export const useGardens = () => useQuery({ queryKey: ["gardens"], queryFn: () => taken(api.GET("/api/gardens")) });

export const useGarden = (id: number) =>
  useQuery({
    queryKey: ["garden", id],
    enabled: id > 0,
    queryFn: () => taken(api.GET("/api/gardens/{garden_id}", { params: { path: { garden_id: id } } })),
  });

export const useStructure = (id: number) =>
  useQuery({
    queryKey: ["structure", id],
    queryFn: () => taken(api.GET("/api/structures/{structure_id}", { params: { path: { structure_id: id } } })),
  });

/** The report of a draft. The client library widens pairs of numbers to lists; the document says pairs. */
export const reportOf = async (id: number, body: { draft: Draft; week: number | null }): Promise<Report> =>
  (await taken(api.POST("/api/structures/{structure_id}/report", { params: { path: { structure_id: id } }, body }))) as unknown as Report;
