/** Whether the studio has everything, or how much waits here for a net. */
import { buttonClass } from "./parts";
import type { Net } from "./use-making";

export function NetMark({
  net,
  refused,
  onTry,
}: {
  net: Net;
  refused: readonly string[];
  onTry: () => void;
}) {
  const offline = net.outcome?.state === "offline";
  const text = net.waiting ? `${net.waiting} wait` : offline ? "no net" : net.outcome ? "all sent" : "…";
  return (
    <>
      <button
        type="button"
        className={`${buttonClass} text-sm ${net.waiting || offline ? "border-weld bg-weld-ground" : ""}`}
        title={
          offline ? "No net: everything is kept here and sent later" : "Everything is kept here, and sent"
        }
        onClick={onTry}
      >
        <span role="status">{text}</span>
      </button>
      {refused.length > 0 && (
        <span role="alert" className="border-l-4 border-madder bg-madder-ground px-2 text-sm">
          {refused.length} could not be taken: {refused[0]}
        </span>
      )}
    </>
  );
}
