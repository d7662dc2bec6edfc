/** Ctrl+Z and Ctrl+Y for the design, wherever nothing is being typed and no dialog has steps of its own. */
import { useEffect } from "react";
import { inDialog, isTyping } from "../ui/keys";

export function useUndoKeys(act: (change: { do: "undo" } | { do: "redo" }) => void): void {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || isTyping(e.target) || inDialog(e.target)) return;
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
