/** An address that is told this once: marked whole as soon as it is touched, to be copied. */
import { TextField } from "./controls";

export function ToldOnce({
  what,
  address,
  className,
}: {
  what: string;
  address: string;
  className?: string;
}) {
  return (
    <TextField
      label={`${what}: keep it now, it is not told again`}
      readOnly
      value={address}
      onFocus={(e) => e.target.select()}
      className={className}
    />
  );
}
