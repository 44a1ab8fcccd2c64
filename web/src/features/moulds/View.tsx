import { useQuery } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import { useUnits } from "../../shared/format/useUnits";
import { wordProblem } from "../../shared/format/words";
import { mouldListQuery } from "../../shared/kitchen";
import { Notice } from "../../shared/ui/controls";
import { ListPage } from "../../shared/ui/ListPage";
import { useAttempt } from "../../shared/useAttempt";
import { MouldEditor } from "./MouldEditor";
import { createMould, FIRST_MOULD, removeMould } from "./queries";

export function MouldsView() {
  const { id } = useParams();
  const units = useUnits();
  const list = useQuery(mouldListQuery);
  const { problem, attempt } = useAttempt("mould");
  if (!list.data) return null;
  const items = list.data.items;
  const current = items.find((item) => item.id === id);
  if (!current && items[0]) return <Navigate to={`/moulds/${items[0].id}`} replace />;

  const add = () =>
    attempt(async () => {
      const made = await createMould(crypto.randomUUID(), FIRST_MOULD);
      return `/moulds/${made.id}`;
    });
  const remove = (mould: string, version: number) =>
    attempt(async () => {
      await removeMould(mould, version);
      return "/moulds";
    });
  return (
    <ListPage
      title="Moulds"
      base="/moulds"
      items={items.map((item) => ({
        id: item.id,
        name: item.doc.name,
        note: `${item.doc.mat ? "on a mat" : item.doc.material}, ${item.doc.cavities.map((c) => `${c.count} ${c.name.toLowerCase()}`).join(", ")}`,
      }))}
      onAdd={add}
      addWord="Add a mould"
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
