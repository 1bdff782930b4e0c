import { NavLink, useParams } from "react-router";
import { CutPlanner } from "../papers/CutPlanner";
import { Divider } from "../papers/Divider";
import { Drawer } from "../papers/Drawer";
import { GetSheet } from "../papers/GetSheet";
import { SheetFacts } from "../papers/SheetFacts";
import { Main } from "../parts/Main";

const tools = [
  { id: "", label: "Drawer" },
  { id: "sizes", label: "Sizes" },
  { id: "get", label: "Get a sheet" },
  { id: "divide", label: "Divide by folding" },
  { id: "cut", label: "Cut pieces" },
];

/** Paper before the first fold: what is in a sheet, how to divide it, how to cut it. */
export function Papers() {
  const { tool = "" } = useParams();
  return (
    <Main
      title={`Papers: ${tools.find((t) => t.id === tool)?.label ?? "Drawer"}`}
      className="mx-auto w-full max-w-[80rem] grow p-4 sm:p-6"
    >
      <h1 className="text-3xl">Papers</h1>
      <nav aria-label="Paper tools" className="mt-3 flex flex-wrap">
        {tools.map((t) => (
          <NavLink
            key={t.id}
            to={t.id ? `/papers/${t.id}` : "/papers"}
            end
            className={({ isActive }) =>
              `-mr-0.5 -mb-0.5 flex min-h-11 items-center border-2 border-ink px-3 ${isActive ? "bg-ink text-panel" : "bg-panel"}`
            }
          >
            {t.label}
          </NavLink>
        ))}
      </nav>
      <div className="mt-6">{show(tool)}</div>
    </Main>
  );
}

function show(tool: string) {
  switch (tool) {
    case "sizes":
      return <SheetFacts />;
    case "get":
      return <GetSheet />;
    case "divide":
      return <Divider />;
    case "cut":
      return <CutPlanner />;
    default:
      return <Drawer />;
  }
}
