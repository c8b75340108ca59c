import { Button, FileButton, Modal, SegmentedControl, Select, Switch, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiProblem, answered, api, type Problem, type Schemas } from "../shared/api/client";
import { deskQuery, reviewsQuery, takeSession, useEditions, useReviews, useSession } from "../shared/api/queries";
import { Problems } from "../shared/Problems";
import { Appearance } from "../shared/Appearance";
import { Desk } from "./Desk";
import { ordered, type Order } from "./order";
import { strings } from "./strings";

const ORDERS: { value: Order; label: string }[] = [
  { value: "turn", label: strings.byTurn },
  { value: "waiting", label: strings.byWaiting },
  { value: "due", label: strings.byDue },
  { value: "title", label: strings.byTitle },
  { value: "newest", label: strings.byAge },
];

type Which = "open" | "closed" | "all";

/** The reviews of the signed-in person, the open ones first. */
export function ReviewsPage() {
  const [words, setWords] = useState("");
  const [archived, setArchived] = useState(false);
  const [order, setOrder] = useState<Order>("turn");
  const desk = useQuery(deskQuery(words, archived));
  const session = useSession();
  const client = useQueryClient();
  const go = useNavigate();
  const [which, setWhich] = useState<Which>("open");
  const rows = desk.data ?? [];
  const closedCount = rows.filter((r) => r.status === "closed").length;
  const openCount = rows.length - closedCount;
  const shown = ordered(
    rows.filter((r) => which === "all" || archived || words !== "" || r.status === which),
    order,
  );
  const [creating, { open, close }] = useDisclosure(false);
  const leave = useMutation({
    mutationFn: () => answered(api.DELETE("/api/session/")),
    onSuccess: () => {
      if (session.data) takeSession(client, { ...session.data, person: null });
    },
  });
  const bring = useMutation({
    mutationFn: async (file: File) => {
      let document: Record<string, unknown>;
      try {
        document = JSON.parse(await file.text()) as Record<string, unknown>;
      } catch {
        throw new Error(strings.isNotAnExportedReview(file.name));
      }
      const answer = await answered(api.POST("/api/reviews/import/", { body: document }));
      return "status" in answer && "problems" in answer ? imported(answer) : answer;
    },
    onSuccess: (review) => go(`/reviews/${review.id}/sheet`),
  });
  return (
    <main className="reviews">
      <div className="reviews-head">
        <h1>{strings.reviews}</h1>
        <Link to="/account" className="quiet">
          {session.data?.person?.name}
        </Link>
        <Link to="/library">{strings.libraryOfRemarks}</Link>
        <Link to="/profiles">{strings.profilesOfTables}</Link>
        {session.data?.person?.administers && <Link to="/office">{strings.theOffice}</Link>}
        {session.data?.mail_is_caught && <Link to="/mail">{strings.mailOfTheDemo}</Link>}
        <Appearance />
        <Button
          variant="default"
          onClick={() => {
            leave.mutate();
          }}
        >
          {strings.signOut}
        </Button>
        <FileButton
          accept=".json"
          onChange={(f) => {
            if (f) bring.mutate(f);
          }}
        >
          {(props) => (
            <Button variant="default" loading={bring.isPending} {...props}>
              {strings.importWord}
            </Button>
          )}
        </FileButton>
        <Button color="dark" onClick={open}>
          {strings.newReview}
        </Button>
      </div>
      <Problems
        error={desk.error ?? bring.error}
        title={bring.error ? strings.theReviewWasNotImported : strings.theReviewsCouldNotBe}
      />
      {desk.data?.length === 0 && !words && !archived && (
        <div className="empty">
          <p>
            {strings.thereAreNoReviewsYet}
            <b>{strings.newReview}</b>
            {strings.enterTheBriefPasteThe}
          </p>
        </div>
      )}
      {rows.length > 0 || words || archived ? (
        <div className="desk-tools">
          <TextInput
            size="xs"
            w={220}
            aria-label={strings.searchReviews}
            placeholder={strings.searchReviews}
            value={words}
            onChange={(e) => {
              setWords(e.currentTarget.value);
            }}
          />
          {closedCount > 0 && (
            <SegmentedControl
              aria-label={strings.whichReviews}
              value={which}
              onChange={(v) => {
                setWhich(v);
              }}
              data={[
                { value: "open", label: strings.open(openCount) },
                { value: "closed", label: strings.closedReviews(closedCount) },
                { value: "all", label: strings.all(openCount + closedCount) },
              ]}
            />
          )}
          <Select
            aria-label={strings.orderOfReviews}
            size="xs"
            w={190}
            allowDeselect={false}
            value={order}
            data={ORDERS}
            onChange={(v) => {
              setOrder(v ?? "turn");
            }}
          />
          <Switch
            size="xs"
            label={strings.archive}
            checked={archived}
            onChange={(e) => {
              setArchived(e.currentTarget.checked);
            }}
          />
        </div>
      ) : null}
      {desk.data && shown.length === 0 && (words || archived || desk.data.length > 0) && (
        <p className="quiet">
          {words ? strings.noReviewHas(words) : archived ? strings.archiveIsEmpty : strings.noReviewIsOpen}
        </p>
      )}
      <Desk rows={shown} />
      <Modal opened={creating} onClose={close} title={strings.newReview} size="md">
        <NewReview />
      </Modal>
    </main>
  );
}

function NewReview() {
  const editions = useEditions();
  const go = useNavigate();
  const client = useQueryClient();
  const [fields, setFields] = useState({ title: "", place: "", client: "", edition: "" });
  // the edition of the review that was begun last, until another one is chosen
  const usual = useReviews().data?.[0]?.edition ?? editions.data?.[0]?.id ?? "";
  const edition = fields.edition || usual;
  const set = (name: keyof typeof fields) => (e: { currentTarget: { value: string } }) => {
    const value = e.currentTarget.value;
    setFields((f) => ({ ...f, [name]: value }));
  };
  const create = useMutation({
    mutationFn: () => {
      const { title, place, client: whose } = fields;
      return answered(api.POST("/api/reviews/", { body: { title, place, client: whose, brief: { edition } } }));
    },
    onSuccess: async (review) => {
      await client.invalidateQueries({ queryKey: reviewsQuery.queryKey });
      await go(`/reviews/${review.id}/brief`);
    },
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        create.mutate();
      }}
    >
      <TextInput label={strings.building} required data-autofocus value={fields.title} onChange={set("title")} />
      <TextInput label={strings.place} mt="xs" value={fields.place} onChange={set("place")} />
      <TextInput label={strings.client} mt="xs" value={fields.client} onChange={set("client")} />
      <Select
        label={strings.governingEdition}
        mt="xs"
        allowDeselect={false}
        value={edition}
        data={(editions.data ?? []).map((e) => ({ value: e.id, label: e.title }))}
        onChange={(v) => {
          setFields((f) => ({ ...f, edition: v ?? f.edition }));
        }}
      />
      <Problems error={create.error} title={strings.theReviewWasNotCreated} />
      <Button type="submit" mt="md" color="dark" loading={create.isPending}>
        {strings.createAndEnterTheBrief}
      </Button>
    </form>
  );
}

/** ms between looks at how far an import is. */
const LOOK_AGAIN = 500;

/** The review of a large import, when its job has made it. */
async function imported(waiting: Schemas["Import"]): Promise<{ id: string }> {
  let now = waiting;
  while (now.status === "queued" || now.status === "running") {
    await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN));
    now = await answered(api.GET("/api/imports/{import_id}/", { params: { path: { import_id: now.id } } }));
  }
  if (now.review) return { id: now.review };
  throw new ApiProblem(422, now.problems as Problem[]);
}
