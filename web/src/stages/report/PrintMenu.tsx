import { Button, Menu } from "@mantine/core";
import { useReviewContext } from "../../review/ReviewContext";
import { answered, api, type Schemas } from "../../shared/api/client";
import { Problems } from "../../shared/Problems";
import { strings } from "./strings";
import { usePrinting } from "./usePrinting";

type Draft = Required<Schemas["DraftRequest"]>;
const DRAFTS: (Draft & { label: string })[] = [
  { kind: "report", format: "pdf", label: strings.reportAs("PDF") },
  { kind: "report", format: "docx", label: strings.reportAs("DOCX") },
  { kind: "report", format: "xlsx", label: strings.reportAs("XLSX") },
  { kind: "letter", format: "pdf", label: strings.letterAs("PDF") },
  { kind: "letter", format: "docx", label: strings.letterAs("DOCX") },
];

/** Prints a draft in one of its formats; then opens what was printed. */
export function PrintMenu() {
  const { review } = useReviewContext();
  const draft = usePrinting(({ kind, format }: Draft) =>
    answered(
      api.POST("/api/reviews/{review_id}/report/draft/", {
        params: { path: { review_id: review.id } },
        body: { kind, format },
      }),
    ),
  );
  return (
    <>
      <Problems error={draft.error} title={strings.theReportWasNotPrinted} />
      {draft.done && (
        <Button
          color="dark"
          variant="outline"
          component="a"
          href={`/api/printings/${draft.done.id}.${draft.done.format ?? "pdf"}`}
          target="_blank"
        >
          {strings.openThe((draft.done.format ?? "pdf").toUpperCase())}
        </Button>
      )}
      <Menu position="bottom-end">
        <Menu.Target>
          <Button variant="default" disabled={draft.busy}>
            {draft.busy ? strings.printing(Math.round(100 * draft.share)) : strings.printADraft}
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {DRAFTS.map(({ label, ...what }) => (
            <Menu.Item
              key={label}
              onClick={() => {
                draft.start(what);
              }}
            >
              {label}
            </Menu.Item>
          ))}
          <Menu.Item component="a" href={`/api/reviews/${review.id}/export/`} download>
            {strings.plumbJson}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </>
  );
}
