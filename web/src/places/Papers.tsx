import { NavLink, useParams } from "react-router";
import { CutPlanner } from "../papers/CutPlanner";
import { Divider } from "../papers/Divider";
import { GetSheet } from "../papers/GetSheet";
import { SheetFacts } from "../papers/SheetFacts";

const tools = [
  { id: "", label: "Sizes" },
  { id: "get", label: "Get a sheet" },
  { id: "divide", label: "Divide by folding" },
  { id: "cut", label: "Cut pieces" },
];

/** Paper before the first fold: what is in a sheet, how to divide it, how to cut it. */
export function Papers() {
  const { tool = "" } = useParams();
  return (
    <main id="main" className="mx-auto w-full max-w-[80rem] grow p-4 sm:p-6">
      <h1 className="text-3xl">Papers</h1>
      <nav aria-label="Paper tools" className="mt-3 flex flex-wrap">
        {tools.map((t) => (
          <NavLink
            key={t.id}
            to={t.id ? `/papers/${t.id}` : "/papers"}
            end
            className={({ isActive }) =>
              `-ml-0.5 flex min-h-11 items-center border-2 border-ink px-3 first:ml-0 ${isActive ? "bg-ink text-panel" : "bg-panel"}`
            }
          >
            {t.label}
          </NavLink>
        ))}
      </nav>
      <div className="mt-6">
        {tool === "divide" ? (
          <Divider />
        ) : tool === "cut" ? (
          <CutPlanner />
        ) : tool === "get" ? (
          <GetSheet />
        ) : (
          <SheetFacts />
        )}
      </div>
    </main>
  );
}
