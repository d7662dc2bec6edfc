/** What every screen stands in, for tests of what needs it: questions asked of the studio, and notices. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Overlays } from "./overlays";

export function Frame({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={new QueryClient()}>
      <Overlays>{children}</Overlays>
    </QueryClientProvider>
  );
}
