/** What the studio refused, or why it did not answer, at the place that asked. */
import { sentence } from "../api/client";

export function Refused({ error }: { error: unknown }) {
  if (!error) return null;
  return (
    <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
      {sentence(error)}
    </p>
  );
}
