/** Forms that are sent: react-hook-form keeps the values, the house's fields show them, refusals land at their field. */
import { useCallback } from "react";
import {
  Controller,
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormReturn,
  useForm,
} from "react-hook-form";
import { Refused, sentence } from "../api/client";
import { Button, NumberField, SelectField, TextField } from "./controls";

export type Form<T extends FieldValues> = UseFormReturn<T>;

/** A form whose `send` may be refused: a refusal that names a field is shown there, any other below the fields. */
export function useSentForm<T extends FieldValues>(initial: DefaultValues<T>) {
  const form = useForm<T>({ defaultValues: initial, mode: "onSubmit" });
  const { setError } = form;
  const refused = useCallback(
    (error: unknown) => {
      const named =
        error instanceof Refused ? (error.problem.field ?? error.problem.errors?.[0]?.field) : null;
      const field = named?.split(".").pop() as FieldPath<T> | undefined;
      const known = field !== undefined && field in form.getValues();
      setError(known ? field : "root", { message: sentence(error) });
    },
    [form, setError],
  );
  return { form, refused };
}

export function FormError<T extends FieldValues>({ form }: { form: Form<T> }) {
  const said = form.formState.errors.root?.message;
  return said ? (
    <p role="alert" className="col-span-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
      {said}
    </p>
  ) : null;
}

/** The last line of a form in a dialog: leave it, or send it. */
export function FormEnd({
  onCancel,
  pending = false,
  children,
}: {
  onCancel: () => void;
  pending?: boolean;
  /** What sending does, in words. */
  children: string;
}) {
  return (
    <div className="col-span-2 flex justify-end gap-2">
      <Button onClick={onCancel}>Cancel</Button>
      <Button type="submit" weight="main" disabled={pending}>
        {children}
      </Button>
    </div>
  );
}

export function FormText<T extends FieldValues>({
  form,
  name,
  required,
  ...rest
}: {
  form: Form<T>;
  name: FieldPath<T>;
  required?: string;
} & Omit<Parameters<typeof TextField>[0], "form" | "name" | "required" | "value" | "onChange" | "error">) {
  return (
    <Controller
      control={form.control}
      name={name}
      rules={{ validate: (v) => !required || String(v ?? "").trim() !== "" || required }}
      render={({ field, fieldState }) => (
        <TextField
          {...rest}
          ref={field.ref}
          aria-required={required ? true : undefined}
          value={field.value ?? ""}
          onChange={(e) => field.onChange(e.target.value)}
          onBlur={field.onBlur}
          error={fieldState.error?.message ?? null}
        />
      )}
    />
  );
}

export function FormNumber<T extends FieldValues>({
  form,
  name,
  required,
  ...rest
}: {
  form: Form<T>;
  name: FieldPath<T>;
  required?: string;
} & Omit<Parameters<typeof NumberField>[0], "value" | "onValue" | "optional" | "said">) {
  return (
    <Controller
      control={form.control}
      name={name}
      rules={{ validate: (v) => !required || typeof v === "number" || required }}
      render={({ field, fieldState }) => (
        <NumberField
          {...rest}
          optional
          value={field.value ?? null}
          onValue={field.onChange}
          said={fieldState.error?.message ?? null}
        />
      )}
    />
  );
}

export function FormSelect<T extends FieldValues, V extends string>({
  form,
  name,
  read,
  ...rest
}: {
  form: Form<T>;
  name: FieldPath<T>;
  /** From what is chosen to the form's value; the choice itself where it is not given. */
  read?: (chosen: V) => unknown;
} & Omit<Parameters<typeof SelectField<V>>[0], "value" | "onValue">) {
  return (
    <Controller
      control={form.control}
      name={name}
      render={({ field, fieldState }) => (
        <SelectField<V>
          {...rest}
          value={String(field.value ?? "") as V}
          onValue={(chosen) => field.onChange(read ? read(chosen) : chosen)}
          error={fieldState.error?.message ?? null}
        />
      )}
    />
  );
}
