import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { show } from "../review/testing";
import { AddressLine } from "./AddressLine";

function line(onSend: (email: string) => Promise<unknown>) {
  show(<AddressLine label="E-mail address" action="Invite" pending={false} onSend={onSend} />);
  return screen.getByLabelText(/E-mail address/);
}

it("sends the address, and is empty afterwards", async () => {
  const send = vi.fn(() => Promise.resolve());
  const field = line(send);
  await userEvent.type(field, "avel.tran@northlight.example{Enter}");
  expect(send).toHaveBeenCalledExactlyOnceWith("avel.tran@northlight.example");
  await waitFor(() => {
    expect(field).toHaveValue("");
  });
});

it("keeps the address where it could not be sent", async () => {
  const field = line(() => Promise.reject(new Error("no")));
  await userEvent.type(field, "avel.tran@northlight.example{Enter}");
  expect(field).toHaveValue("avel.tran@northlight.example");
});
