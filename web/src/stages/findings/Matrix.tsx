import { Button, FileButton, Menu, Modal, Textarea, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { notifications } from "@mantine/notifications";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, uploadTo, type Schemas } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";

type ReadMatrix = Schemas["ReadMatrix"];

/** The response matrix: downloaded, sent by mail, and imported with its answers. */
export function Matrix({ onTeam, waiting }: { onTeam: boolean; waiting: number }) {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const path = `/api/reviews/${review.id}/matrix/`;
  const [file, setFile] = useState<File | null>(null);
  const [sending, { open, close }] = useDisclosure(false);
  const read = useMutation({ mutationFn: (chosen: File) => uploadTo<ReadMatrix>(path, chosen) });
  const apply = useMutation({
    mutationFn: (chosen: File) => uploadTo<ReadMatrix>(path, chosen, { apply: "true" }),
    onSuccess: async (matrix) => {
      setFile(null);
      const fresh = matrix.answers.filter((a) => !a.known).length;
      notifications.show({ message: strings.answersImported(fresh), color: "teal" });
      await refresh();
    },
  });
  const fresh = read.data?.answers.filter((a) => !a.known) ?? [];
  return (
    <>
      <Menu position="bottom-end">
        <Menu.Target>
          <Button variant="default" size="xs">
            {strings.responseMatrix}
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item component="a" href={path} disabled={waiting === 0}>
            {strings.downloadIt}
          </Menu.Item>
          {onTeam && (
            <Menu.Item onClick={open} disabled={waiting === 0}>
              {strings.sendItByMail}
            </Menu.Item>
          )}
          <FileButton
            accept=".xlsx"
            onChange={(chosen) => {
              if (!chosen) return;
              setFile(chosen);
              read.mutate(chosen);
            }}
          >
            {(props) => (
              <Menu.Item closeMenuOnClick={false} {...props}>
                {strings.importAnswers}
              </Menu.Item>
            )}
          </FileButton>
        </Menu.Dropdown>
      </Menu>
      <Modal
        opened={file !== null && !read.isPending}
        onClose={() => {
          setFile(null);
        }}
        title={strings.answersIn(file?.name ?? "")}
        size="lg"
      >
        <Problems error={read.error ?? apply.error} title={strings.nothingWasImported} />
        {read.data && (
          <>
            {read.data.answers.length === 0 && <p>{strings.noAnswersInIt}</p>}
            <table className="plain">
              <tbody>
                {read.data.answers.map((a) => (
                  <tr key={a.number} className={a.known ? "quiet" : ""}>
                    <td className="n">{a.number}</td>
                    <td>
                      <b>{a.title}</b>
                      <div style={{ whiteSpace: "pre-line" }}>{a.answer}</div>
                      <div className="quiet">{[a.action, a.reference].filter(Boolean).join(" · ")}</div>
                    </td>
                    <td className="quiet">{a.known ? strings.known : strings.freshAnswer}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <div className="bench-file">
              <Button
                color="dark"
                disabled={fresh.length === 0}
                loading={apply.isPending}
                onClick={() => {
                  if (file) apply.mutate(file);
                }}
              >
                {strings.importThem(fresh.length)}
              </Button>
            </div>
          </>
        )}
      </Modal>
      <Modal opened={sending} onClose={close} title={strings.sendItByMail}>
        <Send onDone={close} />
      </Modal>
    </>
  );
}

function Send({ onDone }: { onDone: () => void }) {
  const { review } = useReviewContext();
  const [to, setTo] = useState("");
  const [message, setMessage] = useState("");
  const send = useMutation({
    mutationFn: () =>
      answered(
        api.POST("/api/reviews/{review_id}/matrix/send/", {
          params: { path: { review_id: review.id } },
          body: { to: to.split(/[\s,;]+/).filter(Boolean), message },
        }),
      ),
    onSuccess: () => {
      notifications.show({ message: strings.matrixSent, color: "teal" });
      onDone();
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate();
      }}
    >
      <TextInput
        label={strings.addresses}
        required
        data-autofocus
        value={to}
        onChange={(e) => {
          setTo(e.currentTarget.value);
        }}
      />
      <Textarea
        label={strings.message}
        mt="xs"
        autosize
        minRows={3}
        maxLength={2000}
        value={message}
        onChange={(e) => {
          setMessage(e.currentTarget.value);
        }}
      />
      <Problems error={send.error} title={strings.itWasNotSent} />
      <Button type="submit" mt="md" color="dark" loading={send.isPending}>
        {strings.send}
      </Button>
    </form>
  );
}
