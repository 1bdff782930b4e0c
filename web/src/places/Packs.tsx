import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, Problem, type Pack, type PackList } from "../api/client";
import { changed, question } from "../api/queries";
import { Button, Caution, Check, Field, Select } from "../parts/controls";
import { Main } from "../parts/Main";
import { toast } from "../toast";
import { noteUndo, offerUndo } from "../undo";
import { packWords } from "../bench/write/packWords";

/** Packs of things to write: those that ship, and one's own. */
export function Packs() {
  const { pack = "" } = useParams();
  const { data: list, error } = useQuery(question.packs());
  if (error)
    return (
      <Main title="Packs" className="grow p-4">
        <Caution title="The packs cannot be shown">{error.message}</Caution>
      </Main>
    );
  if (!list) return <main id="main" className="grow" aria-busy="true" />;
  const card = list.packs.find((p) => p.id === pack) ?? list.packs[0];
  return (
    <Main title="Packs" className="mx-auto w-full max-w-[80rem] grow p-4 sm:p-6">
      <h1 className="text-3xl">Packs</h1>
      <p className="mt-1 max-w-prose text-quiet">
        Words to spell and messages to open, for fortune tellers. Take one as it is, make your own from it, or
        paste a list. Be kind, and write nothing about real people.
      </p>
      <div className="mt-4 grid items-start gap-6 md:grid-cols-[20rem_minmax(0,1fr)]">
        <div className="flex flex-col gap-4">
          <nav aria-label="Packs">
            <ul>
              {list.packs.map((p) => (
                <li key={p.id}>
                  <Link
                    to={`/packs/${p.id}`}
                    aria-current={p.id === card?.id ? "page" : undefined}
                    className="flex min-h-11 items-center border-b border-line px-2 aria-[current]:bg-ink aria-[current]:text-panel"
                  >
                    {packWords(p)}
                  </Link>
                </li>
              ))}
            </ul>
          </nav>
          <NewPack />
        </div>
        {card && <OnePack key={card.id} id={card.id} list={list} />}
      </div>
    </Main>
  );
}

/** A pack of one's own from a pasted list or a file. */
function NewPack() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [title, setTitle] = useState("");
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const add = async () => {
    setProblem("");
    try {
      const p = await api.addPack(text, title);
      setText("");
      setTitle("");
      noteUndo(`${p.title} is kept`, { do: "bin pack", pack: p.id });
      await changed.packs(queries);
      void navigate(`/packs/${p.id}`);
    } catch (e) {
      setProblem(e instanceof Problem || e instanceof Error ? e.message : "It could not be kept.");
    }
  };
  return (
    <form
      aria-label="A pack of your own"
      className="flex flex-col gap-2 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <h2 className="text-xl">A pack of your own</h2>
      <Field
        label="Title of your pack"
        value={title}
        maxLength={80}
        onChange={(e) => setTitle(e.target.value)}
      />
      <label className="text-sm font-semibold">
        Messages, one in each line; an answer after “ = ”
        <textarea
          className="mt-1 block h-36 w-full border-2 border-ink bg-panel p-2 font-normal"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <p className="text-sm text-quiet">A pack that was saved as JSON or CSV can be pasted as well.</p>
      {problem && <Caution title="Not kept">{problem}</Caution>}
      <Button type="submit" disabled={text.trim() === ""}>
        Keep it as a pack
      </Button>
    </form>
  );
}

/** A pack: for whom, what it says, as a file; one's own can be changed. */
function OnePack({ id, list }: { id: string; list: PackList }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data: pack, error } = useQuery(question.pack(id));
  const [draft, setDraft] = useState<Pack | null>(null);
  const [problem, setProblem] = useState("");
  if (error) return <Caution title="This pack cannot be shown">{error.message}</Caution>;
  if (!pack) return <p aria-busy="true">…</p>;
  const keep = async (p: Pack) => {
    setProblem("");
    try {
      await api.changePack(p);
      noteUndo(`${p.title} was changed`, { do: "change pack", pack });
      setDraft(null);
      await changed.packs(queries);
    } catch (e) {
      setProblem(e instanceof Error ? e.message : "It could not be kept.");
    }
  };
  const own = async () => {
    const { kind, from_age, to_age, language, space, words, entries } = pack;
    const file = { title: pack.title, kind, from_age, to_age, language, space, words, entries };
    try {
      const p = await api.addPack(JSON.stringify(file), `${pack.title}, mine`);
      noteUndo(`${p.title} is kept`, { do: "bin pack", pack: p.id });
      await changed.packs(queries);
      void navigate(`/packs/${p.id}`);
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be kept.");
    }
  };
  const bin = async () => {
    await api.binPack(pack.id);
    await changed.packs(queries);
    void navigate("/packs");
    offerUndo(`${pack.title} is in the bin`, { do: "restore pack", pack: pack.id });
  };
  const look = "flex min-h-11 items-center border-2 border-ink bg-panel px-4 font-semibold hover:bg-ground";
  return (
    <section aria-label={pack.title} className="min-w-0">
      <h2 className="text-2xl">{pack.title}</h2>
      <p className="text-quiet">
        {pack.kind},{" "}
        {pack.to_age >= 99 ? `from ${pack.from_age} years` : `${pack.from_age} to ${pack.to_age} years`},{" "}
        {list.languages[pack.language]}. {pack.entries.length} messages, {pack.words.length} words.{" "}
        {pack.ships ? "It ships with Tussock." : "It is your own."}
      </p>
      {pack.space && <p className="mt-2 bg-caution px-2 py-1 text-on-mark">Floor: {pack.space}</p>}
      <div className="mt-3 flex flex-wrap gap-2">
        <a className={look} href={`/api/v1/packs/${pack.id}/file?format=json`} download>
          JSON
        </a>
        <a className={look} href={`/api/v1/packs/${pack.id}/file?format=csv`} download>
          CSV
        </a>
        <Button onClick={() => void own()}>Make my own from it</Button>
        {!pack.ships && !draft && <Button onClick={() => setDraft(pack)}>Change it</Button>}
        {!pack.ships && <Button onClick={() => void bin()}>Put it into the bin</Button>}
      </div>
      {!pack.ships && !draft && (
        <Check checked={pack.read} onChange={(read) => void keep({ ...pack, read })}>
          A leader has read it and approves
        </Check>
      )}
      {problem && <Caution title="Not kept">{problem}</Caution>}
      {draft ? (
        <Editor
          draft={draft}
          list={list}
          onChange={setDraft}
          onKeep={() => void keep({ ...draft, read: false })}
          onLeave={() => setDraft(null)}
        />
      ) : (
        <>
          <h3 className="mt-4 text-xl">Words to spell</h3>
          <p>{pack.words.join(", ") || "none"}</p>
          <h3 className="mt-4 text-xl">Messages</h3>
          <ul className="columns-1 gap-6 sm:columns-2">
            {pack.entries.map((e) => (
              <li key={e.text} className="break-inside-avoid border-b border-line py-1">
                {e.text}
                {e.answer && <span className="text-quiet"> ({e.answer})</span>}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

const linesOf = (text: string) => text.split("\n");

/** What one's own pack says, as text. */
function Editor({
  draft,
  list,
  onChange,
  onKeep,
  onLeave,
}: {
  draft: Pack;
  list: PackList;
  onChange: (p: Pack) => void;
  onKeep: () => void;
  onLeave: () => void;
}) {
  const area = "mt-1 block w-full border-2 border-ink bg-panel p-2 font-normal";
  return (
    <form
      className="mt-3 flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onKeep();
      }}
    >
      <Field
        label="Title"
        value={draft.title}
        maxLength={80}
        onChange={(e) => onChange({ ...draft, title: e.target.value })}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Select
          label="Kind"
          value={draft.kind}
          options={list.kinds.map((k) => ({ value: k, label: k }))}
          onChange={(kind) => onChange({ ...draft, kind })}
        />
        <Select
          label="Language"
          value={draft.language}
          options={Object.entries(list.languages).map(([value, label]) => ({ value, label }))}
          onChange={(language) => onChange({ ...draft, language })}
        />
        <Field
          label="From age"
          unit="years"
          inputMode="numeric"
          value={String(draft.from_age)}
          onChange={(e) => onChange({ ...draft, from_age: Number(e.target.value) || 0 })}
        />
        <Field
          label="To age"
          unit="years"
          inputMode="numeric"
          value={String(draft.to_age)}
          onChange={(e) => onChange({ ...draft, to_age: Number(e.target.value) || 0 })}
        />
      </div>
      <Field
        label="Floor that it needs, where something is done"
        value={draft.space ?? ""}
        maxLength={300}
        onChange={(e) => onChange({ ...draft, space: e.target.value })}
      />
      <label className="text-sm font-semibold">
        Words to spell, one in each line
        <textarea
          className={`${area} h-28`}
          value={draft.words.join("\n")}
          onChange={(e) => onChange({ ...draft, words: linesOf(e.target.value) })}
        />
      </label>
      <label className="text-sm font-semibold">
        Messages, one in each line; an answer after “ = ”
        <textarea
          className={`${area} h-64`}
          value={draft.list ?? ""}
          onChange={(e) => onChange({ ...draft, list: e.target.value })}
        />
      </label>
      <p className="text-sm text-quiet">After a change a leader must read it anew.</p>
      <div className="flex gap-2">
        <Button type="submit" weight="main">
          Keep it
        </Button>
        <Button onClick={onLeave}>Leave it as it was</Button>
      </div>
    </form>
  );
}
