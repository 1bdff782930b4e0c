import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { toast } from "../toast";
import { api, type SheetSpec, type Use } from "../api/client";
import { question } from "../api/queries";
import { Button } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { length, number, sheetSize } from "../units";

/** What of the shelf can be made from a piece of paper, at what size. */
export function Uses({ sheet }: { sheet: SheetSpec }) {
  const units = useUnits();
  const navigate = useNavigate();
  const uses = useQuery(question.uses(sheet));
  const begin = async (u: Use) => {
    try {
      const { gsm, thickness_mm, paper, front, back, turned } = sheet;
      const b = await api.createBuild(
        u.pattern,
        {
          width: u.width_mm,
          height: u.height_mm,
          unit: "mm",
          gsm,
          thickness_mm,
          paper,
          front,
          back,
          ...(turned ? { turned } : {}),
        },
        "",
      );
      void navigate(`/bench/${b.id}/paper`);
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be begun.");
    }
  };
  if (!uses.data) return null;
  if (uses.data.length === 0) return <p>Nothing of the shelf can be folded from a piece of this size.</p>;
  return (
    <ul className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
      {uses.data.map((u) => (
        <li key={u.pattern} className="flex gap-3 border border-line bg-ground p-3">
          {u.picture && (
            <PaperPicture
              thin
              picture={u.picture}
              colours={{ front: sheet.front, back: sheet.back }}
              label=""
              className="h-20 w-20 shrink-0"
            />
          )}
          <div>
            <p className="title text-lg">{u.title}</p>
            <p className="text-sm">
              {u.count > 1 && `${u.count} times `}
              {sheetSize(u.width_mm, u.height_mm, units)}
              {u.turned && ", lying across"}; the toy is {length(u.length_mm, units)} long,{" "}
              {number(100 * u.scale, 0)} % of the pattern's size
            </p>
            {u.small && <p className="text-sm font-semibold">Small for fingers, by a rule of thumb.</p>}
            <Button className="mt-1" onClick={() => void begin(u)}>
              Fold a {u.title}
            </Button>
          </div>
        </li>
      ))}
    </ul>
  );
}
