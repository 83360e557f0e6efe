import { useMutation, useQuery } from "@tanstack/react-query";
import { AutoComplete, Button, Checkbox, Input, Radio, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as newId } from "uuid";
import { answer, api, problemOf, type Kind } from "../api/client";
import * as queries from "../api/queries";
import { HangingView } from "../drawing/PictureView";
import { Trouble } from "../shell/Trouble";
import styles from "./newgarment.module.css";

const SOMEBODY_NEW = "new";

/** Hanging up a garment: what kind it is, who wears it, what it is made of. Everything else starts from there. */
export default function NewGarmentPage() {
  const navigate = useNavigate();
  const kinds = useQuery(queries.kinds);
  const wearers = useQuery(queries.wearers);
  const cloths = useQuery(queries.cloths);
  const [kind, setKind] = useState<Kind | null>(null);
  const [name, setName] = useState("");
  const [wearer, setWearer] = useState<string | null>(null);
  const [newWearer, setNewWearer] = useState("");
  const [cloth, setCloth] = useState<string | null>(null);
  const [toile, setToile] = useState(false);
  const chosen = kinds.data?.find((k) => k.kind === kind);
  const who = wearer ?? wearers.data?.[0]?.id ?? SOMEBODY_NEW;
  const of = cloth ?? (toile ? "calico" : (chosen?.cloth ?? ""));
  const hang = useMutation({
    mutationFn: async () => {
      if (!chosen) throw new Error("no kind");
      let worn = wearers.data?.find((w) => w.id === who);
      if (!worn) {
        const id = newId();
        const made = await answer(
          api.PUT("/api/v1/wearers/{wearer}", {
            params: { path: { wearer: id } },
            body: { version: 0, wearer: { name: newWearer.trim() } },
          }),
        );
        worn = made.state;
      }
      const known = cloths.data?.find((c) => c.name === of);
      const usual = cloths.data?.find((c) => c.name === chosen.cloth);
      const base = known ?? (usual && { ...usual, name: of });
      if (!base) throw new Error("no cloth");
      const garment = await answer(
        api.POST("/api/v1/garments/begin", {
          body: {
            name: name.trim() || chosen.name,
            kind: chosen.kind,
            toile,
            wearer: worn.wearer,
            cloth: base,
          },
        }),
      );
      const id = newId();
      await answer(
        api.PUT("/api/v1/garments/{garment}", {
          params: { path: { garment: id } },
          body: { version: 0, wearer_id: worn.id, archived: false, state: newId(), garment },
        }),
      );
      return id;
    },
    onSuccess: async (id) => {
      await navigate(`/garments/${id}/look-over`);
    },
  });
  if (kinds.isError) return <Trouble problem={problemOf(kinds.error)} retry={() => void kinds.refetch()} />;
  if (wearers.isError) return <Trouble problem={problemOf(wearers.error)} />;
  if (kinds.isPending || wearers.isPending) {
    return (
      <main className={styles["page"]}>
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    );
  }
  const problem = hang.error && problemOf(hang.error);
  const missing = !chosen
    ? "Choose what it is first."
    : who === SOMEBODY_NEW && !newWearer.trim()
      ? "Say who wears it."
      : null;
  return (
    <main className={styles["page"]}>
      <h1>What is it?</h1>
      <Radio.Group
        className={clsx(styles["kinds"])}
        aria-label="What it is"
        value={kind}
        onChange={(event) => {
          setKind(event.target.value as Kind);
        }}
      >
        {kinds.data.map((k) => (
          <Radio
            key={k.kind}
            value={k.kind}
            className={clsx(styles["kind"], k.kind === kind && styles["chosen"])}
          >
            {k.hanging && (
              <svg viewBox={k.hanging.view.join(" ")} className={styles["kind-drawing"]} aria-hidden>
                <HangingView hanging={k.hanging} />
              </svg>
            )}
            <span>
              <strong>{k.name}</strong>
              <small className="quiet">{k.says}</small>
            </span>
          </Radio>
        ))}
      </Radio.Group>
      <section className={clsx("sheet", styles["form"])}>
        <label htmlFor="name">Called</label>
        <Input
          id="name"
          maxLength={120}
          placeholder={chosen?.name ?? "what you call it"}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <label htmlFor="wearer">Worn by</label>
        <div className={styles["wearer"]}>
          <Select
            id="wearer"
            value={who}
            options={[
              ...wearers.data.map((w) => ({ value: w.id, label: w.wearer.name })),
              { value: SOMEBODY_NEW, label: "somebody new" },
            ]}
            onChange={setWearer}
          />
          {who === SOMEBODY_NEW && (
            <Input
              aria-label="Name of the new wearer"
              placeholder="their name"
              maxLength={120}
              value={newWearer}
              onChange={(event) => {
                setNewWearer(event.target.value);
              }}
            />
          )}
        </div>
        <label htmlFor="cloth">Cloth</label>
        <AutoComplete
          id="cloth"
          value={of}
          options={(cloths.data ?? []).map((c) => ({ value: c.name }))}
          showSearch={{
            filterOption: (typed, option) => (option?.value ?? "").includes(typed.toLowerCase()),
          }}
          onChange={setCloth}
        />
        <span />
        <Checkbox
          checked={toile}
          onChange={(event) => {
            setToile(event.target.checked);
          }}
        >
          a toile: a trial in cheap cloth
        </Checkbox>
        <span />
        <div>
          <Button
            type="primary"
            size="large"
            disabled={missing !== null}
            loading={hang.isPending}
            onClick={() => {
              hang.mutate();
            }}
          >
            Hang it up
          </Button>{" "}
          {missing && <span className="quiet">{missing}</span>}
          {problem && (
            <p className="field-trouble" role="alert">
              {problem.errors?.map((e) => `${e.found}. Expected ${e.expected}.`).join(" ") ??
                `${problem.title}. ${problem.detail}`}
            </p>
          )}
        </div>
      </section>
    </main>
  );
}
