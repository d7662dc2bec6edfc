/** Ctrl+Z and Ctrl+Y for the design, wherever nothing is being typed. */
import { useEffect } from "react";
import { isTyping } from "../ui/keys";

export function useUndoKeys(act: (change: { do: "undo" } | { do: "redo" }) => void): void {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || isTyping(e.target)) return;
      const key = e.key.toLowerCase();
      if (key === "z" && !e.shiftKey) act({ do: "undo" });
      else if (key === "y" || (key === "z" && e.shiftKey)) act({ do: "redo" });
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [act]);
}
