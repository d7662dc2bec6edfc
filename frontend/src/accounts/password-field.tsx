/** A field for a password: one that she has, or one that she chooses. */
import type { FieldPath, FieldValues } from "react-hook-form";
import { type Form, FormText } from "../ui/form";

export function PasswordField<T extends FieldValues>({
  form,
  name,
  label,
  chosen = false,
}: {
  form: Form<T>;
  name: FieldPath<T>;
  label: string;
  /** Whether she chooses it here. */
  chosen?: boolean;
}) {
  return (
    <FormText
      form={form}
      name={name}
      label={label}
      required={chosen ? "Type the new password." : "Type the password that you have."}
      type="password"
      autoComplete={chosen ? "new-password" : "current-password"}
      hint={chosen ? "At least eight characters, no common word." : undefined}
    />
  );
}
