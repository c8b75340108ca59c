import { Button, FileButton, Modal, NumberInput, Select } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, uploadTo, type Finding } from "../../shared/api/client";
import { useRefresh } from "../../shared/api/queries";
import { Problems } from "../../shared/Problems";
import { PdfPage } from "../exhibits/PdfPage";
import { strings } from "./strings";
import css from "./FindingsPage.module.css";

type Attachment = Finding["attachments"][number];
const PAGE_WIDTH = 620;

/** Pictures of a finding and marked regions of pages, with what adds and removes them. */
export function Attachments({ finding, onTeam }: { finding: Finding; onTeam: boolean }) {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const [marking, { open, close }] = useDisclosure(false);
  const [shown, show] = useState<Attachment | null>(null);
  const add = useMutation({
    mutationFn: (file: File) => uploadTo(`/api/findings/${String(finding.id)}/pictures/`, file),
    onSuccess: refresh,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answered(api.DELETE("/api/attachments/{attachment_id}/", { params: { path: { attachment_id: id } } })),
    onSuccess: refresh,
  });
  const draft = finding.status === "draft";
  if (!onTeam && finding.attachments.length === 0) return null;
  return (
    <>
      <div className="bench-part">
        <h3>{strings.attachments}</h3>
      </div>
      <ul className={css["attachments"]}>
        {finding.attachments.map((a) => (
          <li key={a.id}>
            {a.media_type ? (
              <a href={`/api/attachments/${String(a.id)}/`} target="_blank" rel="noreferrer">
                <img src={`/api/attachments/${String(a.id)}/`} alt={a.name} />
                {a.name}
              </a>
            ) : onTeam && a.exhibit !== null ? (
              <button
                type="button"
                className="linklike"
                onClick={() => {
                  show(a);
                }}
              >
                {a.name}
              </button>
            ) : (
              a.name
            )}
            {onTeam && draft && (
              <Button
                variant="subtle"
                size="compact-xs"
                color="gray"
                onClick={() => {
                  remove.mutate(a.id);
                }}
              >
                {strings.remove}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Problems error={add.error ?? remove.error} title={strings.nothingWasChanged} />
      {onTeam && (
        <div className="bench-file">
          <FileButton
            accept="image/png,image/jpeg"
            onChange={(file) => {
              if (file) add.mutate(file);
            }}
          >
            {(props) => (
              <Button variant="default" size="xs" loading={add.isPending} {...props}>
                {strings.attachAPicture}
              </Button>
            )}
          </FileButton>
          <Button variant="default" size="xs" onClick={open}>
            {strings.markAPage}
          </Button>
        </div>
      )}
      <Modal opened={marking} onClose={close} title={strings.markAPage} size="xl">
        <MarkPage finding={finding} onDone={close} />
      </Modal>
      <Modal
        opened={shown !== null}
        onClose={() => {
          show(null);
        }}
        title={shown?.name}
        size="xl"
      >
        {shown?.exhibit != null && shown.page != null && (
          <div className={css["marked"]}>
            <PdfPage exhibit={shown.exhibit} page={shown.page} width={PAGE_WIDTH} titled={(k) => k} />
            <Region region={shown.region ?? []} />
          </div>
        )}
      </Modal>
    </>
  );
}

const share = (value: number | undefined) => `${String(100 * (value ?? 0))}%`;

/** The marked region over its page. */
function Region({ region: [left, top, right, bottom] }: { region: number[] }) {
  return (
    <div
      className={css["region"]}
      style={{
        left: share(left),
        top: share(top),
        width: share((right ?? 0) - (left ?? 0)),
        height: share((bottom ?? 0) - (top ?? 0)),
      }}
    />
  );
}

/** A page of an exhibit, on which a region is dragged out. */
function MarkPage({ finding, onDone }: { finding: Finding; onDone: () => void }) {
  const { review } = useReviewContext();
  const refresh = useRefresh(review.id);
  const documents = review.submissions.flatMap((s) =>
    s.exhibits
      .filter((e) => e.name.toLowerCase().endsWith(".pdf"))
      .map((e) => ({ value: String(e.id), label: `${s.label} · ${e.name}` })),
  );
  const [exhibit, setExhibit] = useState(documents[0]?.value ?? "");
  const [page, setPage] = useState(1);
  const [region, setRegion] = useState<number[] | null>(null);
  const add = useMutation({
    mutationFn: (marked: number[]) =>
      answered(
        api.POST("/api/findings/{finding_id}/regions/", {
          params: { path: { finding_id: finding.id } },
          body: { exhibit: Number(exhibit), page, region: marked },
        }),
      ),
    onSuccess: async () => {
      await refresh();
      onDone();
    },
  });
  if (documents.length === 0) return <p className="quiet">{strings.noPdf}</p>;
  return (
    <>
      <div className="bench-file">
        <Select
          aria-label={strings.exhibit}
          size="xs"
          w={320}
          allowDeselect={false}
          value={exhibit}
          data={documents}
          onChange={(v) => {
            setExhibit(v ?? "");
            setRegion(null);
          }}
        />
        <NumberInput
          aria-label={strings.page}
          size="xs"
          w={80}
          min={1}
          value={page}
          onChange={(v) => {
            setPage(Math.max(1, Number(v) || 1));
            setRegion(null);
          }}
        />
        <Button
          size="xs"
          color="dark"
          disabled={!region}
          loading={add.isPending}
          onClick={() => {
            if (region) add.mutate(region);
          }}
        >
          {strings.attachTheRegion}
        </Button>
      </div>
      <p className="quiet">{strings.dragOverThePart}</p>
      <Problems error={add.error} title={strings.nothingWasChanged} />
      <div className={css["marked"]}>
        <PdfPage
          key={`${exhibit} ${String(page)}`}
          exhibit={Number(exhibit)}
          page={page}
          width={PAGE_WIDTH}
          titled={(k) => k}
          onShare={setRegion}
        />
        {region && <Region region={region} />}
      </div>
    </>
  );
}
