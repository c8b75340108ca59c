import { Button, FileInput, PasswordInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { uploadTo } from "../../shared/api/client";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";

interface Props {
  /** where it is signed */
  path: string;
  /** whether it can be signed without a certificate too */
  optional?: boolean;
  /** asks who signs, where that has to be shown first */
  confirmed?: (sign: () => Promise<unknown>) => Promise<unknown>;
  onDone: () => unknown;
}

/** A certificate with its passphrase: used for this one signature, and stored nowhere. */
export function Certificate({ path, optional = false, confirmed = (sign) => sign(), onDone }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [passphrase, setPassphrase] = useState("");
  const sign = useMutation({
    mutationFn: () => confirmed(() => uploadTo(path, file, { passphrase }, "certificate")),
    onSuccess: onDone,
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        sign.mutate();
      }}
    >
      <p className="quiet">{optional ? strings.certificateOptional : strings.certificateExplained}</p>
      <FileInput
        label={strings.certificate}
        placeholder={strings.chooseP12}
        accept=".p12,.pfx"
        value={file}
        onChange={setFile}
        required={!optional}
        clearable
      />
      <PasswordInput
        label={strings.passphrase}
        mt="xs"
        autoComplete="off"
        value={passphrase}
        onChange={(e) => {
          setPassphrase(e.currentTarget.value);
        }}
      />
      <Problems error={sign.error} title={strings.notSigned} />
      <Button type="submit" mt="md" color="dark" disabled={!optional && !file} loading={sign.isPending}>
        {strings.sign}
      </Button>
    </form>
  );
}
