import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { makeThing } from "../../api/things";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery } from "../../shared/kitchen";
import { isOf } from "../../shared/moulds";
import { removed } from "../../shared/removed";
import { ListPage } from "../../shared/ui/ListPage";
import { Notice } from "../../shared/ui/plain";
import { useAttempt } from "../../shared/useAttempt";
import { MouldEditor } from "./MouldEditor";
import { FIRST_MOULD, type Mould, removeMould } from "./queries";

/** What it is, in a line. */
function noteOf(mould: Mould): string {
  const counted = mould.cavities.map((c) => `${c.count} ${c.name.toLowerCase()}`).join(", ");
  switch (isOf(mould)) {
    case "sheet":
      return `a sheet, cut: ${mould.cavities.map((c) => c.name.toLowerCase()).join(", ")}`;
    case "drawing":
      return `a board, piped over: ${counted}`;
    case "mould":
      return `${mould.mat ? "on a mat" : mould.material}, ${counted}`;
  }
}

export function MouldsView() {
  const { id } = useParams();
  const units = useUnits();
  const list = useQuery(mouldListQuery);
  const { problem, attempt } = useAttempt("mould");
  if (!list.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);

  const add = () =>
    attempt(async () => {
      return `/pieces/moulds/${await makeThing("mould", FIRST_MOULD)}`;
    });
  const remove = (mould: string, version: number) =>
    attempt(async () => {
      await removeMould(mould, version);
      if (current) removed("mould", current.doc);
      return "/pieces/moulds";
    });
  return (
    <ListPage
      title="Moulds, sheets, drawings"
      base="/pieces/moulds"
      open={id}
      kind="mould"
      items={items.map((item) => ({
        id: item.id,
        name: item.doc.name,
        note: noteOf(item.doc),
      }))}
      add={{ word: "Add a mould", onAdd: () => void add() }}
      empty="Measure a mould first: its opening, its depth, or the water it holds."
    >
      {problem && (
        <div className="px-8 pt-6">
          <Notice tone="hot">{wordProblem(problem, units)}</Notice>
        </div>
      )}
      {current && <MouldEditor key={current.id} stored={current} onRemove={remove} />}
    </ListPage>
  );
}
