/** What of the figure is not for a child under three, each with the way to its stop. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";

export function Hazards({ design }: { design: Design }) {
  const found = useQuery({
    queryKey: ["figure", design.id, "hazards", design.revision],
    queryFn: () =>
      answer<Schemas["HazardOut"][]>(
        api.GET("/api/bench/hazards/{design_id}", { params: { path: { design_id: design.id } } }),
      ),
  });
  if (!found.data?.length) return null;
  return (
    <section aria-label="Not for a child under three" className="mt-2">
      <p className="font-semibold">In this figure, and not for a child under three:</p>
      <ul className="list-disc pl-5">
        {found.data.map((h) => (
          <li key={`${h.where} ${h.what}`}>
            <Link to={`../${h.stop}`} className="underline">
              {h.where}
            </Link>
            {`: ${h.what}.`}
          </li>
        ))}
      </ul>
    </section>
  );
}
