import { Button, TextInput } from "@mantine/core";
import { useState, type ReactNode } from "react";

interface Props {
  label: string;
  action: string;
  pending: boolean;
  /** Called with the address; the field is emptied once the promise is fulfilled. */
  onSend: (email: string) => Promise<unknown>;
  children?: ReactNode;
}

/** One e-mail address to send something to. */
export function AddressLine({ label, action, pending, onSend, children }: Props) {
  const [email, setEmail] = useState("");
  return (
    <form
      className="account-line"
      onSubmit={(e) => {
        e.preventDefault();
        // the reason of a failure is shown beside the field, which keeps what was typed
        onSend(email).then(
          () => {
            setEmail("");
          },
          () => undefined,
        );
      }}
    >
      <TextInput
        label={label}
        type="email"
        required
        w={260}
        value={email}
        onChange={(e) => {
          setEmail(e.currentTarget.value);
        }}
      />
      <Button type="submit" variant="default" loading={pending}>
        {action}
      </Button>
      {children}
    </form>
  );
}
