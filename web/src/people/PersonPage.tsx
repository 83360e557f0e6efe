import { DeleteOutlined, DownloadOutlined, UploadOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Alert, App, Button, Checkbox, Input, Popconfirm, Segmented, Skeleton } from "antd";
import { clsx } from "clsx";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, problemOf, type Taken, type Wearer, type WearerPage } from "../api/client";
import { PictureView } from "../drawing/PictureView";
import { Conflict, Saved } from "../document/Saved";
import { readLength } from "../document/LengthField";
import { draftOf, type Draft } from "../document/drafts";
import { today } from "../document/today";
import { useKept } from "../document/useKept";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import { ChooseFile } from "../shell/ChooseFile";
import { Measurements } from "./Measurements";
import styles from "./people.module.css";
import sheet from "../shell/sheet.module.css";

/** A wearer: measurements over time, standing notes, and what their garments ask for. */
export default function PersonPage() {
  const { wearer = "" } = useParams();
  const { tape } = useSettings();
  const page = useQuery({
    queryKey: ["wearer", wearer],
    queryFn: async () => {
      const params = { path: { wearer }, query: { tape } };
      const first = await answer(api.GET("/api/v1/wearers/{wearer}", { params }));
      return { first, draft: await draftOf<Wearer>(`wearer.${first.state.id}`) };
    },
    // While it is worked on, this page is ahead of the server.
    staleTime: Infinity,
    gcTime: 0,
  });
  if (page.isPending) {
    return (
      <main className={styles["people-page"]}>
        <Skeleton active paragraph={{ rows: 12 }} />
      </main>
    );
  }
  if (page.isError) return <Trouble problem={problemOf(page.error)} retry={() => void page.refetch()} />;
  return <Person key={page.dataUpdatedAt} first={page.data.first} draft={page.data.draft} />;
}

type Which = "asked" | "all";

function Person({ first, draft }: { first: WearerPage; draft: Draft<Wearer> | null }) {
  const { tape } = useSettings();
  const { message } = App.useApp();
  const navigate = useNavigate();
  const { id } = first.state;
  const path = { wearer: id };
  const kept = useKept<Wearer>({
    id: `wearer.${id}`,
    draft,
    initial: first.state.wearer,
    version: first.state.version,
    store: async (version, wearer) => {
      const stored = await answer(
        api.PUT("/api/v1/wearers/{wearer}", { params: { path, query: { tape } }, body: { version, wearer } }),
      );
      return { version: stored.state.version };
    },
  });
  const { value: wearer, change } = kept;
  // What follows from what is shown now, stored or not.
  const view = useQuery({
    queryKey: ["person", id, wearer, tape],
    queryFn: () =>
      answer(api.POST("/api/v1/wearers/{wearer}/view", { params: { path, query: { tape } }, body: wearer })),
    placeholderData: (before) => before ?? first.person,
    gcTime: 0,
  });
  const person = view.data ?? first.person;
  const [day, setDay] = useState(today);
  const asks = first.person.measurements.some((m) => m.unlocks.length > 0);
  const [which, setWhich] = useState<Which>(asks ? "asked" : "all");
  const lines = useMemo(
    () => person.measurements.filter((m) => which === "all" || m.unlocks.length > 0 || m.taken.length > 0),
    [person, which],
  );
  const problem = kept.problem;
  const set = (taken: Omit<Taken, "date">) => {
    const others = (wearer.measurements ?? []).filter((t) => t.what !== taken.what || t.date !== day);
    const isEmpty = !taken.value && !taken.left && !taken.right;
    change({ ...wearer, measurements: isEmpty ? others : [...others, { ...taken, date: day }] });
  };
  /** A pasted column goes down the list, all of it or nothing. */
  const column = async (from: number, pasted: string[]) => {
    const rows = lines.slice(from, from + pasted.length);
    const measurements = [...(wearer.measurements ?? [])];
    for (const [n, text] of pasted.entries()) {
      const line = rows[n];
      if (!text.trim() || !line) continue;
      try {
        const value = await readLength(text, tape);
        const at = measurements.findIndex((t) => t.what === line.what && t.date === day);
        if (at >= 0) measurements.splice(at, 1);
        measurements.push({ what: line.what, date: day, value });
      } catch (error) {
        const wrong = problemOf(error).errors?.[0];
        void message.error(
          `Line ${n + 1}, ${line.name}: ${wrong?.found ?? "it could not be read"}. Nothing was pasted.`,
          8,
        );
        return;
      }
    }
    change({ ...wearer, measurements });
  };
  const importCsv = async (file: File) => {
    const body = await file.text();
    try {
      const taken = await answer(
        api.POST("/api/v1/measurements/read-csv", {
          body,
          bodySerializer: (text) => text,
          headers: { "Content-Type": "text/csv" },
        }),
      );
      const isNew = (t: Taken) =>
        !(wearer.measurements ?? []).some((o) => o.what === t.what && o.date === t.date);
      const added = taken.filter(isNew);
      change({ ...wearer, measurements: [...(wearer.measurements ?? []), ...added] });
      void message.success(
        `${added.length} measurements taken in${added.length < taken.length ? `, ${taken.length - added.length} were here already` : ""}.`,
      );
    } catch (error) {
      const wrong = problemOf(error).errors?.[0];
      void message.error(
        wrong
          ? `${file.name}, ${wrong.path}: ${wrong.found}. Expected ${wrong.expected}. Nothing was taken in.`
          : problemOf(error).detail,
        10,
      );
    }
  };
  const remove = async () => {
    try {
      await answer(api.DELETE("/api/v1/wearers/{wearer}", { params: { path } }));
      await navigate("/people");
    } catch (error) {
      void message.error(`${problemOf(error).title}. ${problemOf(error).detail}`, 8);
    }
  };
  const theirs = problem?.stored_wearer;
  const general = (problem?.errors ?? []).filter((e) => !e.path.startsWith("measurements"));
  return (
    <main className={styles["people-page"]}>
      <div className={styles["person-head"]}>
        <Input
          key={wearer.name}
          className={styles["person-name"]}
          variant="borderless"
          aria-label="Name"
          maxLength={120}
          defaultValue={wearer.name}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== wearer.name) change({ ...wearer, name });
          }}
        />
        <Saved isStored={kept.isStored} problem={problem} onRetry={kept.retry} />
      </div>
      {theirs && (
        <Conflict
          what="wearer"
          there={`${theirs.wearer.name}, ${theirs.wearer.measurements?.length ?? 0} measurements`}
          here={`${wearer.name}, ${wearer.measurements?.length ?? 0} measurements`}
          onTake={() => {
            kept.take({ value: theirs.wearer, version: theirs.version });
          }}
          onKeep={() => {
            kept.keep({ value: theirs.wearer, version: theirs.version });
          }}
        />
      )}
      {general.length > 0 && (
        <p className="field-trouble" role="alert">
          {general.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ")}
        </p>
      )}
      {person.doubts.map((doubt) => (
        <Alert key={doubt.path + doubt.question} type="info" showIcon title={doubt.question} />
      ))}
      <div className={styles["person-work"]}>
        <aside className={clsx("sheet", styles["person-figure"])} aria-label="The figure">
          <div>
            {person.figure.map((picture, n) => (
              <PictureView key={n} picture={picture} label={n === 0 ? "From the front" : "From the side"} />
            ))}
          </div>
          <h2>Standing notes</h2>
          {person.postures.map((line) => (
            <Checkbox
              key={line.posture}
              checked={(wearer.posture ?? []).includes(line.posture)}
              onChange={(event) => {
                const others = (wearer.posture ?? []).filter((p) => p !== line.posture);
                change({ ...wearer, posture: event.target.checked ? [...others, line.posture] : others });
              }}
            >
              {line.name}
              <small className="quiet">{line.sign}</small>
            </Checkbox>
          ))}
          <Input.TextArea
            key={(wearer.notes ?? []).join("\n")}
            aria-label="Other notes, one a line"
            placeholder="anything else that stays true, one note a line"
            autoSize={{ minRows: 2, maxRows: 6 }}
            maxLength={1800}
            defaultValue={(wearer.notes ?? []).join("\n")}
            onBlur={(event) => {
              const notes = event.target.value
                .split("\n")
                .map((n) => n.trim())
                .filter(Boolean);
              if (notes.join("\n") !== (wearer.notes ?? []).join("\n")) change({ ...wearer, notes });
            }}
          />
          {person.taste.length > 0 && (
            <>
              <h2>Ease that is liked</h2>
              <ul className={styles["taste"]} aria-label="Ease that is liked, on the whole girth">
                {person.taste.map((says, n) => (
                  <li key={says}>
                    <span>
                      {says} <small className="quiet">altogether</small>
                    </span>
                    <Button
                      size="small"
                      type="text"
                      aria-label={`Forget: ${says}`}
                      onClick={() => {
                        change({ ...wearer, taste: (wearer.taste ?? []).filter((_, k) => k !== n) });
                      }}
                    >
                      ×
                    </Button>
                  </li>
                ))}
              </ul>
            </>
          )}
          <h2>Garments</h2>
          {first.garments.length === 0 && <p className="quiet">None yet.</p>}
          {first.garments.map((garment) => (
            <Link key={garment.id} to={`/garments/${garment.id}`}>
              {garment.name}
            </Link>
          ))}
        </aside>
        <section className={clsx("sheet", styles["person-measurements"])}>
          <div className={styles["person-tools"]}>
            <h2>Measurements</h2>
            <label>
              <span className="quiet">taken on</span>{" "}
              <Input
                type="date"
                value={day}
                max={today()}
                onChange={(event) => {
                  if (event.target.value) setDay(event.target.value);
                }}
              />
            </label>
            <Segmented<Which>
              aria-label="Which measurements"
              options={[
                { value: "asked", label: "what the garments ask for" },
                { value: "all", label: "all" },
              ]}
              value={which}
              onChange={setWhich}
            />
            <Button
              icon={<DownloadOutlined />}
              href={`/api/v1/wearers/${id}/measurements.csv?tape=${tape}`}
              download
            >
              CSV
            </Button>
            <ChooseFile
              icon={<UploadOutlined />}
              label="Take in measurements from CSV"
              accept=".csv,text/csv"
              onFile={(file) => void importCsv(file)}
            >
              CSV
            </ChooseFile>
          </div>
          <p className="quiet">
            Enter goes to the next. A column of figures can be pasted where it begins. Nothing here must be
            filled in.
          </p>
          {lines.length === 0 && (
            <p className={clsx("quiet", sheet["empty"])}>
              Their garments ask for nothing yet. Choose “all” to measure ahead.
            </p>
          )}
          <Measurements
            lines={lines}
            wearer={wearer}
            day={day}
            errors={problem?.errors ?? []}
            onSet={set}
            onForget={(index) => {
              change({ ...wearer, measurements: (wearer.measurements ?? []).filter((_, n) => n !== index) });
            }}
            onColumn={(from, pasted) => void column(from, pasted)}
          />
        </section>
      </div>
      <Popconfirm
        title={`Remove ${wearer.name}?`}
        description="All measurements go too. Somebody who has garments stays."
        okText="Remove"
        cancelText="Keep"
        onConfirm={() => void remove()}
      >
        <Button type="text" danger icon={<DeleteOutlined />}>
          Remove {wearer.name}
        </Button>
      </Popconfirm>
    </main>
  );
}
