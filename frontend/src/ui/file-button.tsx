/** A button that asks for a file. */
import { useRef } from "react";
import { Button } from "./controls";

/** Pictures that the studio reads. */
export const PICTURES = "image/png,image/jpeg,image/webp";

export function FileButton({
  label,
  accept,
  busy = null,
  onFile,
  children,
}: {
  /** What the file is, for those who do not see the button. */
  label: string;
  accept: string;
  /** What is said while the last file is worked on. */
  busy?: string | null;
  onFile: (file: File) => void;
  children: string;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => chooser.current?.click()} disabled={busy !== null}>
        {busy ?? children}
      </Button>
      <input
        ref={chooser}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          // The same file may be chosen again.
          e.target.value = "";
        }}
      />
    </>
  );
}
