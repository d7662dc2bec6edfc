import "../styles.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { restoreGround } from "../ui/ground";
import { MakingPage } from "./making-page";

restoreGround();
if ("serviceWorker" in navigator && import.meta.env.PROD)
  void navigator.serviceWorker.register("/make-sw.js", { scope: "/make/" }).catch(() => {
    // A browser that keeps no pages still shows this one while there is a net.
  });
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <MakingPage />
    </StrictMode>,
  );
