/** Sends what waits of a design, from any of its stops, as soon as the studio answers. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import type { Design } from "./design";
import { allUnsent, dropUnsent, isHeld, type Unsent } from "./unsent";

const LOOK_MS = 3000;

/** What became of it: sent, the studio does not answer, or another window wrote in between. */
async function send(design: number, item: Unsent): Promise<"sent" | "lost" | "refused"> {
  const path = { design_id: design };
  try {
    if (item.kind === "text")
      await answer<Schemas["TypedOut"]>(
        api.PUT("/api/designs/{design_id}/parts/{key}/typed", {
          params: { path: { ...path, key: item.part } },
          body: { text: item.text, etag: item.etag },
        }),
      );
    else {
      const { kind: _, ...filled } = item;
      await answer<Design>(api.PUT("/api/designs/{design_id}/pages", { params: { path }, body: filled }));
    }
    return "sent";
  } catch (error) {
    const status = error instanceof Refused ? error.problem.status : 0;
    return status === 0 || status >= 500 ? "lost" : "refused";
  }
}

/** How much of a design waits outside of the screens that are open, and what of it needs her choice. */
export function useUnsent(design: number): { waiting: number; refused: Unsent[] } {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState(0);
  const [refused, setRefused] = useState<Unsent[]>([]);
  useEffect(() => {
    let going = true;
    let busy = false;
    const look = async () => {
      if (busy) return;
      busy = true;
      const mine = allUnsent(design).filter((item) => !isHeld(design, item));
      const stuck: Unsent[] = [];
      let left = mine.length;
      for (const item of mine) {
        const became = await send(design, item);
        if (became === "lost") break;
        if (became === "refused") stuck.push(item);
        else {
          dropUnsent(design, item);
          left -= 1;
          await queries.invalidateQueries({ queryKey: ["design", design] });
        }
      }
      busy = false;
      if (!going) return;
      setWaiting(left);
      setRefused((before) => (before.length || stuck.length ? stuck : before));
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_MS);
    const now = () => void look();
    window.addEventListener("online", now);
    return () => {
      going = false;
      clearInterval(timer);
      window.removeEventListener("online", now);
    };
  }, [design, queries]);
  return { waiting, refused };
}
