import { Button, PasswordInput, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../shared/api/client";
import { takeSession } from "../shared/api/queries";
import { Problems } from "../shared/Problems";

export function SignIn() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const client = useQueryClient();
  const open = useMutation({
    mutationFn: () => answered(api.POST("/api/session/", { body: { email, password } })),
    onSuccess: (session) => {
      takeSession(client, session);
    },
  });
  return (
    <main className="sign-in">
      <svg className="sign-in-line" viewBox="0 0 40 800" preserveAspectRatio="xMidYMin slice" aria-hidden>
        <rect x={9} width={22} height={800} fill="var(--band)" />
        <line x1={20} x2={20} y1={0} y2={420} stroke="var(--ink)" strokeWidth={1.6} />
        <path d="M14 414h12l-6 22z" fill="var(--ink)" />
      </svg>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate();
        }}
      >
        <h1>Vigilant Plumb</h1>
        <p className="quiet">What did they say, what do I get, why do we differ, what do I write about it.</p>
        <TextInput
          size="sm"
          label="E-mail address"
          type="email"
          autoComplete="username"
          required
          autoFocus
          value={email}
          onChange={(e) => {
            setEmail(e.currentTarget.value);
          }}
          mt="lg"
        />
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => {
            setPassword(e.currentTarget.value);
          }}
          mt="sm"
        />
        <Problems error={open.error} />
        <Button type="submit" size="sm" mt="lg" color="dark" loading={open.isPending}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
